# frozen_string_literal: true

RSpec.describe Roost::Exchange::ResultsSheet do
  def answers(*texts)
    values = texts.each_with_index.to_h { |text, place| [place + 1, answer(place + 1, "w", { "text" => text })] }
    seats = values.keys.map { |id| Roost::Core::Session::Seat.new(id: id, name: "S#{id}", here: true, practice: false) }
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: [slide("w", prompt: writing)])
    openings = { "w" => [Roost::Core::Session::Opening.begin(0.0, nil)] }
    facts = Roost::Core::Session::Facts.of(openings: openings)
    state = Roost::Core::Session::State.start.with(phase: "ended", slide_id: "w", facts: facts)
    moment = moment_of(id: 1, title: "Marsh", code: "", lesson: lesson, options: room_options,
                       state: state, version: 1, seats: seats, answers: { "w" => values }, shown: {})
    csv = described_class.new(Roost::Core::Analysis::Results.new(moment.record)).to_csv
    CSV.parse(csv.delete_prefix("\uFEFF"), headers: true).map { |row| row["Answer"] }
  end

  it "gives negative numbers as numbers, and text that looks like a formula as text" do
    expect(answers("-2.5", "-3", "=1+1", "-x", "+5", "@me")).to eq(["-2.5", "-3", "'=1+1", "'-x", "'+5", "'@me"])
  end
end
