# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Commands do
  let(:lesson) { marsh_lesson }
  let(:opts) { room_options }

  def give(state, name, arguments = {}, now: 100.0)
    described_class.call(lesson, opts, state, name, arguments.transform_keys(&:to_s), now)
  end

  def after(*commands, from: Roost::Core::Session::State.start)
    commands.reduce(from) do |state, (name, arguments, now)|
      reading = give(state, name, arguments || {}, now: now || 100.0)
      raise reading.reason unless reading.ok?

      reading.value
    end
  end

  let(:on_game) { after(["begin"], ["jump", { slide: "s3" }]) }

  it "begins on the first slide and moves next and back, never past the ends" do
    expect(after(["begin"]).slide_id).to eq("s1")
    expect(after(["begin"], ["next"], ["next"], ["back"]).slide_id).to eq("s2")
    expect(give(after(["begin"]), "back").reason).to eq("This is the first slide.")
    expect(give(after(["begin"], ["jump", { slide: "s5" }]), "next").reason).to eq("That was the last slide.")
  end

  it "moves one slide, not two, when a command arrives twice" do
    once = after(["begin"], ["next", { from: "s1" }])
    expect(after(["next", { from: "s1" }], from: once)).to eq(once)
  end

  it "opens a question as its slide is reached, in a round with time to read before the time limit" do
    expect(on_game).to be_open
    expect(on_game.opening.deadline).to eq(125.3)
  end

  it "leaves opening to the teacher if she wants it so" do
    state = described_class.call(lesson, room_options(opens_itself: false), after(["begin"]), "next", {}, 1.0).value
    expect(state).not_to be_open
  end

  it "closes the question when the teacher moves on, and does not open it again by itself" do
    state = after(["next"], ["back"], from: on_game)
    expect(state.slide_id).to eq("s3")
    expect(state).not_to be_open
  end

  it "closes by the clock only after the grace of a second, and as at the deadline" do
    expect(give(on_game, "expire", now: 126.2).value).to eq(on_game)
    expect(give(on_game, "expire", now: 126.4).value.opening.closed_at).to eq(125.3)
  end

  it "waits for those with extra time, once it is closed for the others" do
    longest = 3/2r # 100 + 1.5 × 25.3 s
    expire = lambda do |state, now, factor|
      described_class.call(lesson, opts, state, "expire", {}, now, longest: -> { factor }).value
    end
    most = expire.call(on_game, 126.4, longest)
    expect([most.open?, most.opening.most_at, most.opening.open_for?(1), most.opening.open_for?(longest)])
      .to eq([true, 125.3, false, true])
    expect(expire.call(most, 138.8, longest)).to eq(most)
    expect(expire.call(most, 139.0, longest).opening.closed_at).to eq(139.0)
    expect(expire.call(most, 127.0, 1).opening.closed_at).to eq(127.0) # they have all handed in
    expect(give(most, "close", now: 130.0).value.opening.closed_at).to eq(125.3)
  end

  it "adds time to what is left, and refuses it once closed" do
    expect(give(on_game, "add_time", { seconds: 15 }, now: 110.0).value.opening.deadline).to eq(140.3)
    closed = after(["close"], from: on_game)
    expect(give(closed, "add_time").reason).to eq("Answers are closed. Open them first, then add time.")
  end

  it "shows the key and the standings only once answers are closed" do
    expect(give(on_game, "show", { what: "key" }).reason).to eq("Close answers first.")
    shown = after(["close"], ["show", { what: "results" }], ["show", { what: "key" }, 102.0], from: on_game)
    expect(shown.showing.keys).to eq(%w[results page key])
    expect(after(["hide", { what: "results" }], from: shown).showing).to be_empty
    expect(after(["next"], from: shown).showing).to be_empty
  end

  it "tells nothing before answers on their way are in, and settles with it what was asked" do
    waiting = after(["close"], ["show", { what: "key" }, 100.5], from: on_game)
    expect([waiting.showing, waiting.opening.told_at]).to eq([{}, nil])
    expect(give(waiting, "expire", now: 100.9).value).to eq(waiting)
    shown = give(waiting, "expire", now: 101.0).value
    expect([shown.shows?("key"), shown.opening.told_at, shown.to_show]).to eq([true, 101.0, nil])
    again = after(["hide", { what: "key" }], ["open", {}, 110.0], from: shown)
    expect([again.open?, again.opening.cover?(111.0)]).to eq([true, false])
    expect(after(["again", {}, 120.0], from: again).opening.cover?(121.0)).to be(true)
    expect(after(["next"], from: waiting).to_show).to be_nil
    expect(after(["hide", { what: "key" }], from: waiting).to_show).to be_nil
  end

  it "settles with the standings what was played of the round so far" do
    round = Roost::Core::Lesson.new(title: "T", slides: %w[a b c].map { |id| slide(id, prompt: game_choice(id: "p#{id}")) },
                                    sections: [section("r", "game", %w[a b c])])
    told = [["begin", 90.0], ["next", 100.0], ["next", 110.0], ["close", 120.0],
            ["show", 130.0]].reduce(Roost::Core::Session::State.start) do |now, step|
      name, at = step
      described_class.call(round, opts, now, name, { "what" => "standings" }, at).value
    end
    expect(told.openings.transform_values { |all| all.last.told_at }).to eq({ "a" => 130.0, "b" => 130.0 })
  end

  it "refuses what makes no sense in one sentence each" do
    poll = after(["begin"], ["next"], ["close"])
    expect(give(poll, "show", { what: "key" }).reason).to eq("This question has no key.")
    expect(give(after(["begin"]), "open").reason).to eq("This slide has no question.")
    expect(give(Roost::Core::Session::State.start, "next").reason).to eq("The lesson hasn't begun yet. Begin it first.")
    expect(give(after(["begin"], ["end"]), "next").reason).to eq("This session has ended.")
    expect(give(after(["begin"]), "jump", { slide: "zz" })).not_to be_ok
    expect(give(after(["begin"]), "instance_eval").reason).to eq("The Desk doesn't know that command. Reload the page.")
  end

  it "survives any run of commands, and every state can be written down and read back" do
    names = described_class::NAMES
    steps = PropCheck::Generators.array(PropCheck::Generators.choose(0..(names.length - 1)))
    PropCheck.forall(steps) do |picks|
      state = Roost::Core::Session::State.start
      picks.each_with_index do |pick, time|
        reading = give(state, names[pick], { slide: "s#{(pick % 5) + 1}", what: "results", seat: "1" }, now: time.to_f)
        state = reading.value if reading.ok?
        expect(Roost::Core::Session::State.from_document(JSON.parse(JSON.generate(state.to_document)),
                                                         state.facts)).to eq(state)
        expect(state.openings.count { |id, all| all.last.open? && id != state.slide_id }).to eq(0)
      end
    end
  end
end
