# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::Headlines do
  let(:lesson) do
    prompt = Roost::Core::Kinds::Choice::Prompt.new(id: "p", settings: { "keys" => %w[o1] })
    slides = Array.new(6) { |at| slide("q#{at}", prompt: prompt) }
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end

  # A row each student: what they picked of each question, 1 to 4 (1 is right); "-": nothing, " ": they were gone.
  def lines(*rows, before: {})
    facts = lesson.slides.reduce(Roost::Core::Session::Facts::NONE) do |all, each|
      all.opened(each.id, Roost::Core::Session::Opening.new(attempt: 1, opened_at: 0.0, closed_at: 90.0).freeze)
    end
    seats = rows.each_index.map { |id| Roost::Core::Session::Seat.new(id: id + 1, name: "S#{id + 1}", here: true) }
    by_slide = lambda do |wanted, &what|
      lesson.slides.each_with_index.to_h do |each, at|
        of = rows.each_with_index.select { |row, _| row[at].match?(wanted) }
        [[each.id, 1], of.to_h { |row, id| [id + 1, what.call(row[at], id + 1, each)] }]
      end
    end
    answers = by_slide.call(/\d/) { |said, id, each| answer(id, each.id, picked("o#{said}"), at: 30.0) }
    shown = by_slide.call(/\S/) { |*| 0.0 }
    record = record_of(lesson: lesson, seats: seats, answers: answers, shown: shown, facts: facts)
    described_class.new(Roost::Core::Analysis::Results.new(record), before: before).all
  end

  def about(...) = lines(...).map(&:about)

  it "says of a question that many missed how many, and what half of them gave" do
    found = lines(*(["111111"] * 4), *(["112111"] * 3), *(["113111"] * 2)).find { |line| line.about == :missed }
    expect([found.slide.id, found.many, found.item.students]).to eq(["q2", 5, 9])
    expect([found.wrong.said, found.wrong.many]).to eq(["B", 3])
    scattered = lines(*(["111111"] * 3), *%w[112111 113111 114111 112111 113111 114111]).find { |line| line.about == :missed }
    expect(scattered.wrong).to be_nil
  end

  it "says first that a key is to be looked at" do
    expect(about(*(["111121"] * 5), *(["122311"] * 5)).first).to eq(:check_key)
  end

  it "names those who fell away, but nobody who was not there" do
    found = lines(*(["111111"] * 7), "1111--", "1111  ", "1-----").find { |line| line.about == :fell_away }
    expect(found.seats.map(&:name)).to eq(["S8"])
  end

  it "says who came further than in their last three sessions, and of nobody who had fewer" do
    before = { 1 => [1/2r, 1/2r, 1/2r], 2 => [1/2r, 1/2r], 3 => [4/5r, 4/5r, 4/5r], 4 => [9/10r, 1/2r, 1/2r, 0r] }
    found = lines(*(["111111"] * 4), *(["111112"] * 6), before: before).find { |line| line.about == :further }
    expect(found.seats.map(&:id)).to eq([1, 4])
  end

  it "says that all is well, and nothing else, where it is" do
    well = Array.new(12) { |at| at < 6 ? "1" * 6 : "111111".dup.tap { |row| row[at - 6] = "2" } }
    expect(about(*well)).to eq([:all_well])
    expect(about(*well, "222222", "222222", "222222")).not_to include(:all_well)
  end

  it "says nothing of fewer than eight" do
    expect(lines(*(["111112"] * 7))).to eq([])
  end

  it "says five things at most" do
    expect(lines(*(["222222"] * 10)).length).to eq(5)
  end
end
