# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::Items do
  # A row each student, a letter each question: 1 right, 0 wrong, - not reached, h half.
  def items(*rows)
    worth = { "1" => 1r, "0" => 0r, "h" => 1/2r }
    slides = Array.new(rows.first.length) { |at| slide("q#{at}", prompt: choice(keys: %w[o1])) }
    marks = slides.each_with_index.to_h do |slide, at|
      [slide, rows.each_with_index.filter_map { |row, seat| [seat, worth[row[at]]] if worth[row[at]] }.to_h]
    end
    described_class.new(marks)
  end

  def choice(**settings) = Roost::Core::Kinds::Choice::Prompt.new(id: "p", settings: settings.transform_keys(&:to_s))

  it "has the figures of the worked example" do
    set = items(*%w[110 111 100 111 000 110 111 010])
    expect(set.all.map(&:facility)).to eq([6/8r, 6/8r, 3/8r])
    expect(set.reliability.alpha).to be_within(0.0005).of(0.676)
  end

  # By hand: ten students, four questions, 7, 6, 6 and 4 right... see the sums: totals 4 4 3 3 3 2 2 1 0 0.
  # Variances p(1 − p)·10/9: .8 → .1778, .6 → .2667, .5 → .2778, .3 → .2333, together .9556; of totals: mean 2.2, squares
  # 2·3.24 + 3·.64 + 2·.04 + 1.44 + 2·4.84 = 19.6, by 9: 2.1778. α = 4/3·(1 − .9556/2.1778) = .7483; error
  # √2.1778·√(1 − .7483) = .7404.
  it "has the figures of a set worked out by hand" do
    set = items(*%w[1111 1111 1110 1110 1101 1100 1010 1000 0000 0000])
    expect(set.all.map(&:facility)).to eq([8/10r, 6/10r, 5/10r, 3/10r])
    expect(set.reliability.alpha).to be_within(0.0005).of(0.7483)
    expect(set.reliability.error).to be_within(0.0005).of(0.7404)
  end

  it "says what it was worked out of, and the last step is the figure" do
    set = items(*%w[110 111 100 111 000 110 111 010])
    slide = set.all.first.slide
    { facility: set.all.first.facility, discrimination: set.all.first.discrimination }.each do |name, figure|
      steps = []
      set.public_send(name, slide, steps: steps)
      expect([steps.last.name, steps.last.value]).to eq([name, figure])
    end
    steps = []
    expect(set.reliability(steps: steps).error).to eq(steps.last.value)
  end

  it "tells nothing of fewer than eight, nor of fewer than three questions, nor where all did alike" do
    few = items(*%w[110 111 100 111 000 110 111])
    expect([few.reliability, few.all.first.discrimination, few.all.first.flags]).to eq([nil, nil, []])
    expect(items(*%w[11 11 10 11 00 11 11 01]).reliability).to be_nil
    alike = items(*(["111"] * 9))
    expect([alike.reliability, alike.all.first.discrimination]).to eq([nil, nil])
  end

  it "leaves out who did not reach a question, and compares with what they reached" do
    set = items(*%w[111- 111- 110- 1111 1110 0001 0000 0000 1011])
    expect([set.all.last.students, set.all.last.facility]).to eq([6, 3/6r])
    expect(set.all.last.discrimination).to be_nil # six are too few
    expect(set.all.first.discrimination).to be > 0.5
  end

  it "flags what is hard, what all know and what goes against the rest" do
    set = items(*%w[1110 1110 1110 1110 1110 1100 0101 0101 0001 0001])
    flags = set.all.to_h { |item| [item.slide.id, item.flags] }
    expect(flags["q3"]).to include(:check_key)
    expect(items(*(["11"] * 8)).all.first.flags).to eq([:easy])
    expect(items(*%w[10 10 10 00 00 00 00 00 01 01]).all.first.flags).to include(:hard)
  end

  it "splits a class in thirds, those alike in parts" do
    thirds = items(*%w[11 11 11 11 00 00 00 00 00]).thirds
    expect(thirds.values.transpose.map { |parts| parts.sum.round(6) }).to eq([3.0, 3.0, 3.0])
    expect(thirds[4].map { |part| part.round(6) }).to eq([0.6, 0.4, 0.0])
    expect(thirds[0].map { |part| part.round(6) }).to eq([0.0, 0.25, 0.75])
  end

  describe "with what was answered" do
    let(:lesson) do
      slides = %w[a b c].map { |id| slide(id, prompt: choice(keys: %w[o1], time_limit: 60)) }
      Roost::Core::Lesson.new(title: "Birds", slides: slides)
    end

    # @param rows [Array<Array<String>>] a row each student, what they picked
    def results(rows, took: 30)
      facts = lesson.slides.reduce(Roost::Core::Session::Facts::NONE) do |all, each|
        all.opened(each.id, Roost::Core::Session::Opening.new(attempt: 1, opened_at: 0.0, closed_at: 90.0).freeze)
      end
      seats = rows.each_index.map { |id| Roost::Core::Session::Seat.new(id: id + 1, name: "S#{id}", here: true) }
      answers = lesson.slides.each_with_index.to_h do |each, at|
        [[each.id, 1], rows.each_with_index.to_h { |row, id| [id + 1, answer(id + 1, each.id, picked(row[at]), at: took)] }]
      end
      shown = answers.transform_values { |given| given.transform_values { 0.0 } }
      Roost::Core::Analysis::Results.new(record_of(lesson: lesson, seats: seats, answers: answers, shown: shown, facts: facts))
    end

    it "says by thirds who picked what, and that the key is to be looked at" do
      rows = [*([%w[o1 o1 o2]] * 4), *([%w[o1 o3 o1]] * 4), *([%w[o2 o3 o1]] * 4)]
      wrong = results(rows).items.all.last
      expect(wrong.options.map(&:many)).to eq([8, 4, 0, 0])
      expect(wrong.options.map { |each| each.thirds.last }.first(2)).to eq([2.0, 2.0])
      expect(wrong.flags.first).to eq(:check_key)
    end

    it "says that a question was rushed" do
      rows = [*([%w[o1 o1 o1]] * 4), *([%w[o2 o1 o2]] * 8), *([%w[o2 o2 o3]] * 6)]
      expect(results(rows, took: 5).items.all.first.flags).to include(:rushed)
      expect(results(rows, took: 20).items.all.first.flags).not_to include(:rushed)
    end
  end
end
