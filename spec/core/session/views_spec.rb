# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Views do
  let(:lesson) { marsh_lesson }
  let(:seats) { %w[Ada Bo Cleo].each_with_index.map { |name, i| Roost::Core::Session::Seat.new(id: i + 1, name: name, here: i < 2) } }
  let(:answers) do
    { "s3" => { 1 => answer(1, "s3", picked("o1"), at: 105.0),
                2 => answer(2, "s3", picked("o2"), final: false, at: 111.0) } }
  end

  def moment(*commands, answers: self.answers, opts: room_options)
    state = commands.reduce(Roost::Core::Session::State.start) do |present, (name, arguments)|
      Roost::Core::Session::Commands.call(lesson, opts, present, name, (arguments || {}).transform_keys(&:to_s),
                                          name == "show" ? 102.0 : 100.0).value
    end
    moment_of(id: 1, title: "Birds", code: "ABC234", lesson: lesson, options: opts, state: state,
              version: 1, seats: seats, answers: answers,
              shown: { "s3" => { 1 => 100.0, 2 => 100.0, 3 => 100.0 } })
  end

  let(:asking) { [["begin"], ["jump", { slide: "s3" }]] }
  let(:closed) { [*asking, ["close"]] }

  it "shows one bird a seat: answered, writing, away" do
    expect(described_class.screen(moment(*asking)).seat_statuses).to eq(%i[answered writing away])
    expect(described_class.screen(moment(*closed)).seat_statuses).to eq(%i[answered answered away])
  end

  # Planned: slides of 2, none and 4 minutes, the last of them asked at 100.
  describe "beside what was planned" do
    let(:lesson) do
      minutes = { "s1" => 2, "s3" => 4 }
      marsh_lesson.with(slides: marsh_lesson.slides.map { |each| each.with(minutes: minutes[each.id]) })
    end

    it "tells the teacher, and nobody else, how many minutes the lesson is behind or ahead" do
      plan = described_class::Desk.of(moment(*asking)).plan
      expect([plan.from, plan.to]).to eq([120, 360])
      expect([100, 159, 161, 300, 460, 519, 521, 1060].map { |now| plan.behind(now) }).to eq([-2, -1, 0, 0, 0, 0, 1, 10])
      expect(described_class.screen(moment(*asking)).to_h.keys).not_to include(:plan)
    end

    it "says nothing where nothing was planned" do
      bare = marsh_lesson
      allow(self).to receive(:lesson).and_return(bare)
      expect(described_class::Desk.of(moment(*asking)).plan).to be_nil
    end
  end

  it "puts nothing on the class screen that the teacher has not put there" do
    screen = described_class.screen(moment(*closed))
    expect([screen.tally, screen.standings, screen.names]).to all(be_nil)
    expect(screen.spotlights).to be_empty
    expect(screen.key).to be(false)
  end

  it "spotlights an answer without its name unless the name is asked for" do
    plain = described_class.screen(moment(*closed, ["spotlight", { seat: 1, named: "0" }]))
    named = described_class.screen(moment(*closed, ["spotlight", { seat: 1, named: "1" }]))
    expect([plain.spotlights.map(&:name), named.spotlights.map(&:name)]).to eq([[nil], ["Ada"]])
    expect(described_class.screen(moment(*closed, ["spotlight", { seat: 77 }])).spotlights).to be_empty
  end

  it "names nobody on the class screen, in the spotlight either, where names are off" do
    shown = [*closed, ["spotlight", { seat: 1, named: "1" }]]
    expect(described_class.screen(moment(*shown, opts: room_options(names_shown: false))).spotlights.map(&:name)).to eq([nil])
    expect(described_class.desk(moment(*shown, opts: room_options(names_shown: false))).names_shown).to be(false)
  end

  it "counts as here who is here, and not who answered and left" do
    gone = { "s3" => { 3 => answer(3, "s3", picked("o1")) } }
    screen = described_class.screen(moment(*asking, answers: gone))
    expect([screen.seat_statuses, screen.here, screen.answered]).to eq([%i[here here answered], 2, 1])
  end

  it "puts up to four answers side by side, and takes single ones down" do
    answers = { "s3" => (1..5).to_h { |id| [id, answer(id, "s3", picked("o1"))] } }
    seats.push(*%w[Dev Esme].each_with_index.map { |name, i| Roost::Core::Session::Seat.new(id: i + 4, name: name, here: true) })
    beside = ->(seat) { ["spotlight", { seat: seat, named: "1", beside: "1" }] }
    names = ->(*steps) { described_class.screen(moment(*closed, *steps, answers: answers)).spotlights.map(&:name) }
    expect(names.call(*(1..4).map(&beside))).to eq(%w[Ada Bo Cleo Dev])
    expect(names.call(beside.call(1), beside.call(2), beside.call(1))).to eq(%w[Bo Ada])
    expect(names.call(beside.call(1), beside.call(2), ["hide", { what: "spotlight", seat: 1 }])).to eq(["Bo"])
    expect(names.call(beside.call(1), ["hide", { what: "spotlight", seat: 1 }])).to be_empty
    expect(names.call(beside.call(1), beside.call(2), ["spotlight", { seat: 3, named: "0" }])).to eq([nil])
    four = moment(*closed, *(1..4).map(&beside), answers: answers).state
    fifth = Roost::Core::Session::Commands.call(lesson, room_options, four, "spotlight", { "seat" => "5", "beside" => "1" },
                                                100.0)
    expect(fifth.reason).to eq("Four answers side by side is the most. Take one down first.")
  end

  describe "results that take several pages" do
    let(:lesson) do
      writing = Roost::Core::Kinds::Writing::Prompt.new(id: "p1", settings: {})
      Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s3", prompt: writing)])
    end
    let(:texts) { ("a".."q").map { |letter| letter * 9 } }
    let(:seats) { texts.each_index.map { |id| Roost::Core::Session::Seat.new(id: id, name: "Student #{id}", here: true) } }
    let(:answers) { { "s3" => texts.each_with_index.to_h { |text, id| [id, answer(id, "s3", { "text" => text })] } } }

    def up(view) = view.tally.parts.first.groups.map(&:lead)

    it "are leafed through on the class screen and the seats, as far as there are any" do
      turn = ->(page) { moment(*closed, ["show", { what: "results" }], ["show", { what: "results", page: page }]) }
      screens = ["0", "1", "9", "-3", "x"].map { |page| described_class.screen(turn.call(page)) }
      expect(screens.map { |screen| [screen.page, screen.pages] }).to eq([[0, 2], [1, 2], [1, 2], [0, 2], [0, 2]])
      expect(screens.first(2).map { |screen| up(screen) }).to eq([texts.first(15), texts.last(2)])
      expect(up(described_class.seats(turn.call("1"), [3]).keys.first)).to eq(texts.last(2))
      expect(described_class.screen(moment(*closed)).pages).to eq(1)
    end

    it "begin at the first page when they are put up again" do
      again = [["show", { what: "results", page: 1 }], ["hide", { what: "results" }], ["show", { what: "results" }]]
      expect(described_class.screen(moment(*closed, *again)).page).to eq(0)
    end
  end

  it "reads a state from before several could be in the spotlight" do
    old = moment(*closed).state.to_document.merge("showing" => { "spotlight" => { "seat" => 2, "named" => true } })
    expect(Roost::Core::Session::State.from_document(old).spotlights).to eq([{ "seat" => 2, "named" => true }])
  end

  it "keeps names off the standings when the teacher wants it so" do
    shown = [*closed, ["show", { what: "standings" }]]
    expect(described_class.screen(moment(*shown)).standings.map(&:name)).to eq(%w[Ada Bo Cleo])
    screen = described_class.screen(moment(*shown, opts: room_options(names_shown: false)))
    expect([screen.standings, screen.together.total, screen.together.possible]).to eq([nil, 100, 300])
  end

  it "gives a seat its result only with the key or the standings" do
    own = ->(*commands) { described_class.seats(moment(*commands), [1]).keys.first.own }
    expect(own.call(*closed).status).to be_nil
    expect(own.call(*closed, ["show", { what: "results" }], ["show", { what: "key" }]).status).to eq(:right)
    standing = described_class.seats(moment(*closed, ["show", { what: "standings" }]), [2]).keys.first.standing
    expect([standing.rank, standing.points, standing.gap]).to eq([2, 0, 100])
  end

  it "makes one view for all seats that see the same" do
    views = described_class.seats(moment(*asking, answers: {}), (1..1000).to_a)
    expect(views.length).to eq(1)
    expect(views.values.first.length).to eq(1000)
  end

  it "flags at the Desk what was not handed in when answers closed" do
    entries = described_class.desk(moment(*closed)).entries
    expect(entries.map do |entry|
      [entry.name, entry.unfinished, entry.writing]
    end).to eq([["Ada", false, false], ["Bo", true, false]])
  end

  it "ranks by points with the time counted from when the device got the question" do
    rows = described_class.desk(moment(*closed)).standings
    expect(rows.map { |row| [row.name, row.points] }).to eq([["Ada", 100], ["Bo", 0], ["Cleo", 0]])
  end
end

RSpec.describe Roost::Core::Session::Scoring do
  let(:styles) { Roost::Core::Game::Style }

  def scoring(prompt = game_choice, heading: "word " * 18,
              style: prompt.keyed? ? styles.make("points", speed: 1/4r) : Roost::Core::Game::Plain.new, **about)
    described_class.new(slide(prompt: prompt, heading: heading), style: style, **about)
  end

  def outcome(answer, shown_at: 100.0, prompt: game_choice) = scoring(prompt).outcome(answer, shown_at)

  it "tells no answer from not reached" do
    expect(outcome(nil).to_h).to include(status: :blank, mark: 0, points: 0)
    expect(outcome(nil, shown_at: nil).to_h).to include(status: :not_reached, mark: nil, points: nil)
  end

  it "measures time from when the device was sent the prompt, and caps it at the limit" do
    expect(outcome(answer(1, "s1", picked("o1"), at: 115.0)).to_h).to include(status: :right, points: 94)
    expect(outcome(answer(1, "s1", picked("o1"), at: 130.7)).points).to eq(75)
    expect([115.0, 130.7].map { |at| scoring.seconds(at, 100.0) } + [scoring.seconds(115.0, nil)]).to eq([15, 30, nil])
  end

  it "gives whoever has extra time so much longer to read and to think" do
    given = answer(1, "s1", picked("o1"), at: 130.0)
    one, twice = [1r, 2r].map { |factor| scoring(factor: factor) }
    told = [one, twice].map { |each| [each.outcome(given, 100.0).points, each.seconds(130.0, 100.0)] }
    expect(told).to eq([[75, 30], [94, 30]])
  end

  it "keeps a late answer and gives it 0, outside of a round too, until the teacher lets it count" do
    late = answer(1, "s1", picked("o1"), late: true, at: 125.0)
    expect(outcome(late).to_h).to include(status: :late, mark: 0, points: 0)
    of = ->(answer, **about) { scoring(choice(keys: ["o1"]), style: Roost::Core::Game::Plain.new, **about).outcome(answer, 100.0).to_h }
    expect(of.call(late)).to include(status: :late, mark: 0)
    let = Roost::Core::Session::Answer.new(**late.to_h, let_count: true).freeze
    expect([of.call(let), outcome(let).to_h]).to match([include(status: :right, mark: 1), include(points: 81)])
    expect(of.call(late, rules: Roost::Core::Session::Rules.new(1))).to include(status: :right, mark: 1)
  end

  it "lets a mark that a teacher gave stand before the key, for an answer, for none, and for what was late" do
    [answer(1, "s1", picked("o2"), at: 104.0), answer(1, "s1", picked("o2"), late: true, at: 104.0)].each do |given|
      expect(scoring.outcome(given, 100.0, hand: 1/2r).to_h).to include(status: :part, mark: 1/2r, points: 50)
    end
    # Who gave nothing took all of the time.
    expect(scoring.outcome(nil, 100.0, hand: 1/2r).to_h).to include(status: :part, mark: 1/2r, points: 38)
    expect(scoring(writing, style: Roost::Core::Game::Plain.new).outcome(answer(1, "s1", { "text" => "x" }), 1.0,
                                                                         hand: 0r).status).to eq(:wrong)
    expect(scoring(set_aside: true).outcome(answer(1, "s1", picked("o1")), 1.0, hand: 1r).mark).to be_nil
  end

  it "says how it comes to its points, step by step, and the last is the figure" do
    of = PropCheck::Generators
    situations = of.tuple(of.choose(0..40), of.one_of(*[nil, 0r, 1/4r, 1r].map { |hand| of.constant(hand) }), of.boolean,
                          of.one_of(*%w[o1 o2].map { |id| of.constant(id) }), of.choose(0..2))
    PropCheck.forall(situations) do |used, hand, late, option, place|
      style = [styles.make("points", speed: 1/4r), styles.make("steady", speed: 0), Roost::Core::Game::Plain.new][place]
      given = answer(1, "s1", picked(option), late: late, at: 100.0 + used)
      outcome = scoring(style: style).outcome(given, 100.0, hand: hand, steps: steps = [])
      expect([steps.last.value, steps.first.value]).to eq([outcome.points || outcome.mark, outcome.mark])
    end
    scoring.outcome(answer(1, "s1", picked("o1"), at: 120.0), 100.0, steps: steps = [])
    expect(steps.map(&:to_a)).to eq([[:by_key, { by_key: 1 }, 1], [:for_the_mark, { points: 100, mark: 1 }, 100],
                                     [:for_the_time, { earned: 100, used: 20, reading: 10, limit: 20, speed: 1/4r }, 87.5],
                                     [:rounded, { earned: 87.5 }, 88]])
  end

  it "does not mark a poll" do
    expect(outcome(answer(1, "s1", picked("o1"), at: 101.0),
                   prompt: choice).to_h).to include(status: :given, mark: nil, points: nil)
  end

  it "marks anew when a key is corrected, as if it had been right from the start" do
    given = answer(1, "s1", picked("o2"), at: 103.0)
    expect([outcome(given).mark, outcome(given, prompt: game_choice(keys: ["o2"])).mark]).to eq([0, 1])
  end
end
