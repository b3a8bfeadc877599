# frozen_string_literal: true

require "roo"

RSpec.describe Roost::Exchange::ResultsWorkbook do
  session = Roost::Core::Session
  let(:lesson) do
    asked = choice(texts: %w[A B], keys: %w[o1], points: 50, subtopics: ["food"], explanation: "So.")
    slides = [slide("a", heading: "=1+1?", prompt: asked),
              slide("b", heading: "Why?", prompt: writing(id: "w"))]
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:results) do
    seats = [session::Seat.new(id: 1, name: "Ada"), session::Seat.new(id: 2, name: "=Bo()")]
    answers = { ["a", 1] => { 1 => answer(1, "a", picked("o1"), at: 12.0), 2 => answer(2, "a", picked("o2"), at: 15.0) },
                ["b", 1] => { 1 => answer(1, "b", { "text" => "=HYPERLINK(1)" }, at: 30.0) } }
    openings = %w[a b].to_h { |id| [id, [session::Opening.new(attempt: 1, opened_at: 10.0, closed_at: 60.0).freeze]] }
    shown = { ["a", 1] => { 1 => 10.0, 2 => 10.0 }, ["b", 1] => { 1 => 20.0, 2 => 20.0 } }
    Roost::Core::Analysis::Results.new(record_of(lesson: lesson, seats: seats, answers: answers, shown: shown, begun_at: 0.0,
                                                 facts: session::Facts.of(openings: openings)))
  end

  # Read back with another library than the one that wrote it.
  def book
    file = Tempfile.new(["results", ".xlsx"], binmode: true)
    done = []
    file.write(described_class.new(results, class_name: "7 Kestrel", day: Date.new(2026, 11, 30)).to_xlsx { |*at| done << at })
    file.flush
    expect(done.last).to eq([7, 7])
    Roo::Excelx.new(file.path)
  end

  it "has a sheet for each reader, the first of which explains the others" do
    found = book
    expect(found.sheets).to eq(described_class::SHEETS.keys)
    about = (1..found.sheet("About").last_row).to_h { |row| found.sheet("About").row(row) }
    expect(about).to include("Session" => "Birds", "Class" => "7 Kestrel", "Sheet Key" => "what is right")
    expect(about.keys.compact.grep(/Sheet /).map { |name| name.delete_prefix("Sheet ") }).to eq(found.sheets - ["About"])
  end

  it "has numbers as numbers, and no formula that somebody typed" do
    found = book
    overview = found.sheet("Overview")
    expect([overview.row(2), overview.row(3)].map do |row|
      row[0..4]
    end).to eq([["=Bo()", nil, 0.0, 0.0, 1.0], ["Ada", nil, 1.0, 1.0, 1.0]])
    answers = found.sheet("Answers")
    row = answers.row(1).zip(answers.row(4)).to_h
    expect(row).to include("Question" => "=1+1?", "Right answer" => "A", "Mark" => 1.0, "Possible" => 50.0, "Seconds" => 2.0,
                           "Tags" => "food")
    expect(answers.row(5)[5]).to eq("=HYPERLINK(1)")
    expect((1..answers.last_row).flat_map do |at|
      (1..answers.last_column).map do |column|
        answers.formula?(at, column)
      end
    end).to all(be_falsy)
    expect(found.sheet("Marks").row(3)[2..]).to eq([1.0, nil, 1.0])
    expect(found.sheet("Questions").row(2)[3..5]).to eq([2.0, 2.0, 0.5])
    expect(found.sheet("Standards").row(2)).to eq(["food", 1.0, 2.0, 0.5])
    expect(found.sheet("Key").row(2)).to eq([1.0, "=1+1?", "Choice", "A", 50.0, "So."])
  end
end
