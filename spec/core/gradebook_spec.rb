# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::Gradebook do
  book = described_class
  columns = (1..3).map { |id| book::Column.new(id: id, title: "Lesson #{id}", kind: :lesson, at: id.to_f).freeze }
  student = Struct.new(:id)

  # @param shares [Array<Array(Rational, Integer), nil>] of one student, each with how many questions; nil: was not there
  def total(*shares, drop: 0, waiting: 0, steps: nil)
    entries = shares.each_with_index.filter_map do |(share, marked), at|
      next unless marked

      entry = { share: share, right: 0, marked: marked, points: nil, waiting: waiting }
      [[7, at + 1], Roost::Core::Analysis::Gradebook::Entry.new(**entry)]
    end.to_h
    of(entries, drop).total(7, steps: steps)
  end

  define_method(:of) do |entries, drop|
    book.new(students: [student.new(7)], columns: columns, entries: entries, drop: drop)
  end

  it "counts what was earned by what was reached, and nothing of what nobody was there for" do
    expect(total([1/2r, 4], nil, [1r, 2]).share).to eq(4/6r)
    expect(total(nil, nil, nil).share).to be_nil
    expect(total([nil, 0], [1/2r, 2], nil).share).to eq(1/2r)
  end

  it "leaves out each student's lowest, of equal ones the earlier, and never the last that there is" do
    found = total([1/4r, 4], [1r, 2], [1/4r, 4], drop: 1)
    expect([found.dropped, found.share]).to eq([[1], 3/6r])
    expect(total([1/4r, 4], nil, nil, drop: 2).dropped).to eq([])
    expect(total([1/4r, 4], [1/2r, 2], [nil, 0], drop: 5).dropped).to eq([1])
  end

  it "says how many answers wait to be marked, which cost nothing" do
    expect([total([1r, 1], waiting: 2).waiting, total([1r, 1], waiting: 2).share]).to eq([2, 1])
  end

  it "is on the school's scale, rounded to its step, halves up" do
    grade = ->(share, top, step) { book.grade(share, top: top, step: step) }
    expect(grade.call(3/4r, 10, 1)).to eq(8) # 7.5
    expect(grade.call(1/2r, 15, BigDecimal("0.5"))).to eq(15/2r)
    expect(grade.call(2/3r, 6, BigDecimal("0.1"))).to eq(4)
    expect(grade.call(0r, 6, 1)).to eq(0)
  end

  it "says what each total comes of, and the last step is the figure" do
    steps = []
    share = total([1/2r, 4], [1r, 2], drop: 1, steps: steps).share
    expect([steps.map(&:name), steps.last.value]).to eq([%i[earned_of_all share], share])
    book.grade(share, top: 10, step: 1, steps: steps)
    expect(steps.last(2).map(&:name)).to eq(%i[on_scale to_step])
    expect(Roost::Web::Why.sentences(steps)).to include("Rounded to steps of 1, halves up: 10.")
  end
end
