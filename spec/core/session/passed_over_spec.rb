# frozen_string_literal: true

# A question that was only leafed through (rules.md, passed over).
RSpec.describe "A question that is passed over" do
  let(:lesson) do
    Roost::Core::Lesson.new(title: "Marsh", slides: [slide("a", prompt: game_choice(id: "p1"), text: "word " * 18),
                                                     slide("b", prompt: game_choice(id: "p2")), slide("c")],
                            sections: [section("r", "game", %w[a b])])
  end
  let(:seats) { [1, 2].map { |id| Roost::Core::Session::Seat.new(id: id, name: "S#{id}", here: true, practice: false).freeze } }

  # Begins, and goes on after so many seconds on the first slide and on the second.
  def moment_after(first, second, answers: {}, slide: "c")
    steps = [["begin", 0.0], ["next", 0.0], ["next", first], ["next", first + second]]
    state = steps.inject(Roost::Core::Session::State.start) do |now, (name, at)|
      Roost::Core::Session::Commands.call(lesson, room_options, now, name, {}, at).value
    end.with(slide_id: slide)
    moment_of(id: 1, title: "Marsh", code: "CDFGHJ", lesson: lesson, options: room_options, state: state,
              version: 1, seats: seats, answers: answers,
              shown: { "a" => { 1 => 0.0, 2 => 0.0 }, "b" => { 1 => 0.0, 2 => 0.0 } })
  end

  it "lasted less than five seconds, or than it takes to read it" do
    limit = 2 + (lesson.slide("a").words / 3.0)
    expect(limit).to be > 5
    expect([limit - 0.1, limit + 0.1].map { |seconds| moment_after(seconds, 9).passed_over?("a") }).to eq([true, false])
    expect([4.9, limit].map { |seconds| moment_after(9, seconds).passed_over?("b") }).to eq([true, false])
  end

  it "counts for nobody, and the Desk says so" do
    moment = moment_after(1, 20)
    results = Roost::Core::Analysis::Results.new(moment.record)
    expect([results.slides.map(&:id), results.passed_over.map(&:id)]).to eq([%w[b], %w[a]])
    expect([results.lines.first.marked, moment_after(1, 20, slide: "b").round.questions.map(&:id)]).to eq([1, %w[b]])
    expect(Roost::Core::Session::Views.desk(moment).sheet.map(&:passed_over)).to eq([false, true, false, false, false])
  end

  it "is asked like any other once somebody has answered, or has typed anything" do
    [answer(1, "a", picked("o1")), answer(1, "a", {}, final: false).dup.tap do |each|
      each.typed = { "x" => ["?"] }
    end].each do |given|
      expect(moment_after(1, 20, answers: { "a" => { 1 => given } }).passed_over?("a")).to be(false)
    end
  end
end
