# frozen_string_literal: true

# What a teacher prepared, once the lesson runs.
RSpec.describe "A prepared lesson in the room" do
  let(:views) { Roost::Core::Session::Views }
  let(:seats) { (1..30).map { |id| Roost::Core::Session::Seat.new(id: id, name: "S#{id}", here: true).freeze } }

  def lesson(slides, sections: []) = Roost::Core::Lesson.new(title: "Birds", slides: slides, sections: sections)

  def run(lesson, *commands, opts: room_options)
    commands.reduce(Roost::Core::Session::State.start) do |state, (name, arguments)|
      Roost::Core::Session::Commands.call(lesson, opts, state, name, (arguments || {}).transform_keys(&:to_s), 100.0).value
    end
  end

  def moment(lesson, *commands, answers: {}, shown: {}, opts: room_options)
    moment_of(id: 1, title: "Birds", code: "ABC234", lesson: lesson, options: opts, version: 1,
              seats: seats, state: run(lesson, *commands, opts: opts), answers: answers, shown: shown)
  end

  describe "slides for teachers only" do
    let(:three) do
      lesson([slide("s1", for_class: false, heading: "For me"), slide("s2", heading: "Hello"),
              slide("s3", for_class: false, heading: "Key"), slide("s4", heading: "Bye")])
    end

    it "are passed over by every move, and nobody can be sent there" do
      expect(run(three, ["begin"]).slide_id).to eq("s2")
      expect(run(three, ["begin"], ["next"]).slide_id).to eq("s4")
      state = run(three, ["begin"])
      refused = Roost::Core::Session::Commands.call(three, room_options, state, "jump", { "slide" => "s3" }, 1.0)
      expect(refused.reason).to eq("That slide is for teachers only. The class can't be sent there.")
    end

    it "stand at the Desk beside their neighbours and in no view of the class" do
      now = moment(three, ["begin"])
      expect(views.desk(now).for_teacher.map(&:id)).to eq(%w[s1 s3])
      expect(views.desk(now).sheet.map { |place| [place.number, place.slide.id] }).to eq([[1, "s2"], [2, "s4"]])
      [views.screen(now), views.seats(now, [1]).keys.first].each do |view|
        expect([view.place, view.total]).to eq([0, 2])
        expect(view.inspect).not_to include("For me")
      end
    end

    it "leave a lesson that has nothing else with nothing to begin" do
      only = lesson([slide("s1", for_class: false)])
      expect(Roost::Core::Session::Commands.call(only, room_options, Roost::Core::Session::State.start, "begin", {},
                                                 1.0)).not_to be_ok
    end
  end

  describe "settings of questions" do
    it "gives thirty seats at most twelve orders of shuffled options, and all others one view" do
      shuffled = lesson([slide("s1", prompt: choice(shuffle: true, keys: ["o1"]))])
      plain = lesson([slide("s1", prompt: choice(keys: ["o1"]))])
      expect(views.seats(moment(shuffled, ["begin"]), (1..30).to_a).length).to eq(12)
      expect(views.seats(moment(plain, ["begin"]), (1..30).to_a).length).to eq(1)
    end

    it "lets the question say whether answers may be changed, else the session" do
      [[nil, true, true], [nil, false, false], [false, true, false], [true, false, true]].each do |own, session, expected|
        one = lesson([slide("s1", prompt: choice(may_change: own))])
        view = views.seats(moment(one, ["begin"], opts: room_options(may_change: session)), [1]).keys.first
        expect([own, session, view.may_change]).to eq([own, session, expected])
      end
    end

    it "counts no mark of a question that is for practice only" do
      both = lesson([slide("s1", prompt: choice(keys: ["o1"])),
                     slide("s2", prompt: choice(id: "p2", keys: ["o1"], practice: true))])
      given = { "s1" => { 1 => answer(1, "s1", picked("o1")) }, "s2" => { 1 => answer(1, "s2", picked("o2")) } }
      shown = { "s1" => { 1 => 1.0 }, "s2" => { 1 => 1.0 } }
      results = Roost::Core::Analysis::Results.new(moment(both, ["begin"], ["next"], ["end"], answers: given,
shown: shown).record)
      expect(results.line_of(1).to_h).to include(share: 1, right: 1)
      expect(results.line_of(1).marked).to eq(1)
      expect(results.questions.map(&:facility)).to eq([1, 0])
    end
  end

  describe "game rounds" do
    let(:rounds) do
      slides = (1..3).map { |number| slide("s#{number}", prompt: game_choice(id: "p#{number}", time_limit: nil)) }
      lesson([*slides, slide("s4", prompt: choice(id: "p4", keys: ["o1"]))],
             sections: [section("one", "game", %w[s1 s2]), section("two", "game", %w[s3])])
    end
    let(:answers) { %w[s1 s2 s3 s4].to_h { |id| [id, { 1 => answer(1, id, picked("o1"), at: 101.0) }] } }

    def standings(*moves)
      now = moment(rounds, ["begin"], *moves, ["close"], answers: answers, shown: answers.transform_values { { 1 => 100.0 } })
      views.desk(now).standings&.first&.points
    end

    it "have standings of their own, and a keyed question outside plays for none" do
      steps = ["next"] * 8
      expect(standings(*steps.first(1))).to eq(100)
      expect(standings(*steps.first(2))).to eq(200)
      expect(standings(*steps.first(5))).to eq(100)
      expect(standings(*steps.first(7))).to be_nil
    end

    it "say who moved since the question that was asked before, in whatever order they were asked" do
      asked = { "s2" => 100.0, "s1" => 200.0 }.transform_values do |at|
        [Roost::Core::Session::Opening.new(attempt: 1, opened_at: at, closed_at: at + 10).freeze]
      end
      state = Roost::Core::Session::State.start.with(phase: "live", slide_id: "s1",
                                                     facts: Roost::Core::Session::Facts.of(openings: asked))
      two = %w[Ada Bo].each_with_index.map { |name, at| Roost::Core::Session::Seat.new(id: at + 1, name: name, here: true) }
      given = { "s1" => { 1 => answer(1, "s1", picked("o1"), at: 201.0) },
                "s2" => { 2 => answer(2, "s2", picked("o1"), at: 101.0) } }
      shown = { "s1" => { 1 => 200.0, 2 => 200.0 }, "s2" => { 1 => 100.0, 2 => 100.0 } }
      now = moment_of(lesson: rounds, seats: two, state: state, answers: given, shown: shown)
      expect(now.round.questions.map(&:id)).to eq(%w[s2 s1])
      expect(now.standings.to_h { |row| [row.name, [row.points, row.moved]] }).to eq({ "Ada" => [100, 1], "Bo" => [100, 0] })
    end

    it "put no standings up where there is no round" do
      state = run(rounds, ["begin"], ["jump", { slide: "s4" }], ["close"])
      shown = Roost::Core::Session::Commands.call(rounds, room_options, state, "show", { "what" => "standings" }, 1.0)
      expect(shown.reason).to eq("This slide is in no game round.")
    end
  end

  describe Roost::Core::Session::Preview do
    it "is the lesson on that slide, with answers open, and told when asked" do
      open = described_class.of(marsh_lesson, "s3")
      told = described_class.of(marsh_lesson, "s3", told: true)
      expect([open.state.slide_id, open.state.open?, open.seats.length]).to eq(["s3", true, 1])
      expect(views.screen(told).key).to be(true)
      expect(views.seats(told, [1]).keys.first.own.status).to eq(:blank)
    end

    it "tells a poll without a key, and stays at the start when the slide is none of the class's" do
      expect(views.screen(described_class.of(marsh_lesson, "s2", told: true)).tally).not_to be_nil
      expect(described_class.of(marsh_lesson, "nowhere").state.slide_id).to eq("s1")
    end
  end
end
