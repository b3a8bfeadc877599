# frozen_string_literal: true

RSpec.describe Roost::Core::Grading::Gradebook do
  book = described_class
  student = Struct.new(:id)

  # @param shares [Array<Array(Rational, Integer), Hash, nil>] of one student, each with how many questions; nil: was not there
  # @param about [Hash{Integer=>Hash}] place to what else is said of a column
  def total(*shares, dropped: 0, waiting: 0, steps: nil, about: {}, **rules)
    entries = shares.each_with_index.filter_map do |(share, marked), at|
      next unless marked

      entry = { share: share, right: 0, marked: marked, points: nil, waiting: waiting, late: 0, excused: share == :excused }
      [[7, "s#{at}"], Roost::Core::Grading::Gradebook::Entry.new(**entry)]
    end.to_h
    columns = shares.each_index.map { |at| column(at, **about.fetch(at, {})) }
    of(entries, columns, **rules, dropped: dropped).total(7, steps: steps)
  end

  def column(number, **about)
    about = { kind: :lesson, weight: 1r, asked: 4, absent_zero: false, **about }
    Roost::Core::Grading::Gradebook::Column.new(id: "s#{number}", title: "Lesson #{number}", at: number.to_f, **about).freeze
  end

  define_method(:of) do |entries, columns, dropped: 0, weight: 1r, categories: [], of_all: false, by_column: false|
    rest = book::Category.new(id: nil, name: "", weight: weight, dropped: dropped)
    rules = book::Rules.new(of_all: of_all, by_column: by_column, rest: rest, categories: categories)
    book.new(students: [student.new(7)], columns: columns, entries: entries, rules: rules)
  end

  it "counts what was earned by what was reached, and nothing of what nobody was there for" do
    expect(total([1/2r, 4], nil, [1r, 2]).share).to eq(4/6r)
    expect(total(nil, nil, nil).share).to be_nil
    expect(total([nil, 0], [1/2r, 2], nil).share).to eq(1/2r)
  end

  it "leaves out each student's lowest, of equal ones the earlier, and never the last that there is" do
    found = total([1/4r, 4], [1r, 2], [1/4r, 4], dropped: 1)
    expect([found.dropped, found.share]).to eq([["s0"], 3/6r])
    expect(total([1/4r, 4], nil, nil, dropped: 2).dropped).to eq([])
    expect(total([1/4r, 4], [1/2r, 2], [nil, 0], dropped: 5).dropped).to eq(["s0"])
  end

  it "says how many answers wait to be marked, which cost nothing" do
    expect([total([1r, 1], waiting: 2).waiting, total([1r, 1], waiting: 2).share]).to eq([2, 1])
  end

  it "counts nothing of what somebody is excused from, and nothing as zero unless the teacher says so" do
    expect(total([1r, 2], [:excused, 0]).share).to eq(1)
    expect(total([1r, 2], nil).share).to eq(1)
    expect(total([1r, 4], nil, about: { 1 => { absent_zero: true } }).share).to eq(1/2r)
    expect(total([1r, 4], [:excused, 0], about: { 1 => { absent_zero: true } }).share).to eq(1)
  end

  it "is by all that was asked where the teacher wants that" do
    expect(total([1r, 2], of_all: true).share).to eq(2/4r)
    expect(total([1/2r, 4], of_all: true).share).to eq(1/2r)
  end

  it "counts each column alike, or by its weight" do
    expect(total([1r, 2], [0r, 8]).share).to eq(1/5r)
    expect(total([1r, 2], [0r, 8], by_column: true).share).to eq(1/2r)
    expect(total([1r, 2], [0r, 8], by_column: true, about: { 0 => { weight: 3r } }).share).to eq(3/4r)
    expect(total([1r, 2], [0r, 8], about: { 1 => { weight: 0r } }).share).to eq(1)
  end

  # Worked by hand: oral (8 of 10) and lessons (2 of 4 and 4 of 4), 40 to 60; the lowest lesson left out makes it 92 %.
  it "takes categories by their weights, whatever is in them, and leaves the lowest out within each" do
    oral = book::Category.new(id: 3, name: "Oral", weight: 40r, dropped: 0)
    about = { 0 => { category_id: 3, kind: :own, possible: 10r } }
    both = ->(**more) { total([4/5r, 10r], [1/2r, 4], [1r, 4], about: about, categories: [oral], weight: 60r, **more) }
    expect(both.call.share).to eq(((40 * 4/5r) + (60 * 6/8r)) / 100)
    expect(both.call(dropped: 1).share).to eq(92/100r)
    steps = []
    expect(both.call(steps: steps).share).to eq(steps.last.value)
    expect(Roost::Web::Why.sentences(steps))
      .to eq(["Oral: 8 ÷ 10 = 80 %, weight 40.", "Everything else: 6 ÷ 8 = 75 %, weight 60.",
              "Each times its weight, added up and divided by 100: 77 %."])
    # Who has nothing in a category loses nothing by it; a weight of 0 counts for nothing.
    expect(total(nil, [1/2r, 4], about: about, categories: [oral], weight: 60r).share).to eq(1/2r)
    expect(total(nil, [1/2r, 4], about: about, categories: [oral], weight: 0r).share).to be_nil
  end

  it "says what each total comes of, and the last step is the figure" do
    steps = []
    share = total([1/2r, 4], [1r, 2], dropped: 1, steps: steps).share
    expect([steps.map(&:name), steps.last.value]).to eq([%i[earned_of_all share], share])
    Roost::Core::Grading::Scale.new(top: 10, step: 1).grade(share, steps: steps)
    expect(steps.last(2).map(&:name)).to eq(%i[on_scale to_step])
    expect(Roost::Web::Why.sentences(steps)).to include("Rounded to steps of 1, halves up: 10.")
  end
end
