# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::Timeline do
  session = Roost::Core::Session
  let(:lesson) do
    slides = [slide("a", heading: "Hello", minutes: 2), slide("b", prompt: choice(keys: %w[o1]), minutes: 3), slide("c")]
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:seats) do
    at = { came_at: 1000.0, away_since: 1590.0, visited: true }
    [session::Seat.new(id: 1, name: "Ada", **at), session::Seat.new(id: 2, name: "Bo", **at, came_at: 1130.0),
     session::Seat.new(id: 3, name: "Cleo", **at, away_since: 1300.0)]
  end

  def command(name, slide_id, at, **arguments)
    session = Roost::Core::Session::Record::Command
    session.new(name: name, slide_id: slide_id, at: at, arguments: arguments.transform_keys(&:to_s), account_id: 1).freeze
  end

  let(:timeline) do
    commands = [command("make_room", nil, 900.0), command("begin", "a", 1000.0), command("next", "b", 1120.0),
                command("open", "b", 1125.0), command("show", "b", 1200.0, what: "results"),
                command("talk", "b", 1210.0, seconds: "60"),
                command("hide", "b", 1290.0, what: "key"), command("back", "a", 1300.0), command("next", "b", 1330.0),
                command("next", "c", 1360.0), command("end", "c", 1600.0)]
    answers = { ["b", 1] => { 1 => answer(1, "b", picked("o1"), at: 1150.0), 2 => answer(2, "b", picked("o2"), at: 1599.9) } }
    described_class.new(record_of(lesson: lesson, seats: seats, answers: answers, commands: commands, begun_at: 1000.0),
                        ended_at: 1600.0)
  end

  it "is each slide as long as it was up, as often as it was" do
    expect(timeline.stretches.map { |each| [each.slide.id, each.from, each.to] })
      .to eq([["a", 1000, 1120], ["b", 1120, 1300], ["a", 1300, 1330], ["b", 1330, 1360], ["c", 1360, 1600]])
    expect(timeline.stretches.sum(&:seconds)).to eq(timeline.lasting)
  end

  it "is each slide over all, beside what was planned, with what was shown, talked about and answered" do
    expect(timeline.parts.map { |part| [part.slide.id, part.seconds, part.planned, part.answers, part.shown, part.talk] })
      .to eq([["a", 150, 120, nil, [], 0], ["b", 210, 180, 2, ["results"], 60], ["c", 240, nil, nil, [], 0]])
  end

  it "says when answers came, who came late and who left before the end" do
    expect(timeline.answers.each_with_index.reject { |many, _| many.zero? }.map(&:reverse)).to eq([[15, 1], [59, 1]])
    expect(timeline.passages.map(&:to_a)).to eq([[:came, "Bo", 1130.0], [:left, "Cleo", 1300.0]])
  end

  it "is a picture with a block each time a slide was up, whose names are text" do
    drawn = Roost::Web::TimelineDrawing.new(timeline, clock: :to_s.to_proc, minutes: :to_s.to_proc).svg
    picture = Nokogiri::XML(drawn)
    widths = picture.css(".timeline-block rect, rect").map { |rect| rect["width"].to_f } # namespaces apart
    expect(widths.first(5)).to eq([238.0, 358.0, 58.0, 58.0, 478.0])
    expect(drawn).to include("Bo came").and include("10 min")
  end

  it "knows nothing of sessions before slides were kept with commands" do
    bare = described_class.new(record_of(lesson: lesson, seats: seats, commands: [command("begin", nil, 1.0)]), ended_at: 100.0)
    expect([bare.known?, bare.parts]).to eq([false, []])
  end
end
