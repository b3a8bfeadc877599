# frozen_string_literal: true

# What holds of every round, whatever is answered when (rules.md, points and styles of round).
RSpec.describe Roost::Core::Session::RoundResult do
  session = Roost::Core::Session
  styles = Roost::Core::Game::Style.all.map(&:name_of)

  let(:slides) { %w[q0 q1 q2].map { |id| slide(id, prompt: game_choice(id: "p#{id}")) } }
  let(:teams) { %w[Reed Sedge].each_with_index.map { |name, at| session::Team.new(id: at + 1, name: name, mark: at).freeze } }

  def lesson(slides) = Roost::Core::Lesson.new(title: "T", slides: slides, sections: [section("r", "game", %w[q0 q1 q2])])

  def play(number, style)
    Roost::Core::Session::Play.new(section_id: "r", number: number, slide_ids: %w[q0 q1 q2], style: style, speed: 0.5,
                                   goal: 0.7, answering: "alone", talk: 45, began_at: 0.0).freeze
  end

  def opening(number, from)
    Roost::Core::Session::Opening.new(attempt: number, play: number, opened_at: from, clock_at: from, closed_at: from + 60).freeze
  end

  # When a question was asked.
  def from(slide_id) = slide_id[1].to_i * 100.0

  # Plays, one in each of these styles, whose questions were asked one after the other.
  def facts(styles)
    plays = styles.each.with_index(1).map { |style, number| play(number, style) }
    openings = %w[q0 q1 q2].to_h { |id| [id, plays.map { |each| opening(each.number, from(id)) }] }
    Roost::Core::Session::Facts.of(openings: openings, plays: { "r" => plays })
  end

  # What everybody gave, made up.
  def made_up(random, attempt: 1)
    (1..6).to_a.product(%w[q0 q1 q2]).filter_map do |seat, id|
      next if random.rand < 0.15

      at = from(id) + random.rand(0.0..60.0).round(2)
      given = answer(seat, id, picked("o#{random.rand(1..3)}"), at: at, attempt: attempt)
      given.dup.tap { |each| each.sure = random.rand(1..3) }.freeze
    end
  end

  def seats(teams, factor)
    %w[Ada Bo Cleo Dan Eli Fay].each.with_index(1).map do |name, id|
      team_id = (id % 2) + 1 if teams.any?
      Roost::Core::Session::Seat.new(id: id, name: name, here: true, time_factor: factor, team_id: team_id).freeze
    end
  end

  def shown(times)
    %w[q0 q1 q2].product((1..times).to_a).to_h { |id, attempt| [[id, attempt], (1..6).to_h { |seat| [seat, from(id)] }] }
  end

  # @param number [Integer, nil] which play; nil for the last
  def round(style, answers, slides: self.slides, styles: [style], number: nil, teams: [], teams_at: {}, factor: 1r)
    by_question = answers.group_by { |each| [each.slide_id, each.attempt] }
    by_seat = by_question.transform_values { |all| all.to_h { |each| [each.seat_id, each] } }
    facts = facts(styles)
    record = record_of(lesson: lesson(slides), seats: seats(teams, factor), facts: facts, answers: by_seat, teams: teams,
                       shown: shown(styles.length), teams_at: teams_at, live: true)
    described_class.new(record, record.lesson.round_named("r"), facts.plays["r"][(number || styles.length) - 1])
  end

  def each_made_up
    PropCheck.forall(PropCheck::Generators.choose(0..1_000_000)) { |seed| yield made_up(Random.new(seed)), Random.new(seed + 1) }
  end

  it "gives the same points in whatever order answers arrive, and again when they are the same at the same times" do
    each_made_up do |answers, random|
      styles.each do |style|
        once = round(style, answers)
        expect(round(style, answers.shuffle(random: random)).totals).to eq(once.totals)
        expect(round(style, answers).rows).to eq(once.rows)
      end
    end
  end

  it "gives with a corrected key the round that would have been, in every style" do
    right = slides.map { |each| each.with(prompt: each.prompt.with_settings("keys" => ["o2"])) }
    other = { "o1" => "o2", "o2" => "o1", "o3" => "o3" }
    each_made_up do |answers, _|
      changed = answers.map do |each|
        each.dup.tap { |copy| copy.value = picked(other.fetch(each.value["options"].first)) }
      end
      styles.each { |style| expect(round(style, changed, slides: right).totals).to eq(round(style, answers).totals) }
    end
  end

  it "has totals that are the sums of its questions, of seats, of teams and of the class" do
    members = %w[q0 q1 q2].to_h { |id| [[id, 1], (1..6).to_h { |seat| [seat, (seat % 2) + 1] }] }
    each_made_up do |answers, _|
      styles.each do |style|
        played = round(style, answers, teams: teams, teams_at: members)
        sums = played.questions.map { |each| played.points(each) }.reduce { |one, two| one.merge(two) { |_, a, b| a + b } }
        expect(played.totals).to eq(sums)
        expect(played.team_totals.values).to eq(teams.map { |team|
          played.questions.sum { |each|
            played.team_points(each)[team.id]
          }
        })
        expect(played.together.total).to eq(sums.values.sum)
      end
    end
  end

  it "reads no answer of one time it was played in another" do
    PropCheck.forall(PropCheck::Generators.choose(0..1_000_000)) do |seed|
      first = made_up(Random.new(seed))
      second = made_up(Random.new(seed + 7), attempt: 2)
      both = first + second
      two = %w[points steady]
      expect(round(nil, both, styles: two, number: 1).totals).to eq(round("points", first).totals)
      alone = round("steady", second.map { |each| each.dup.tap { |other| other.attempt = 1 } })
      expect(round(nil, both, styles: two, number: 2).totals).to eq(alone.totals)
    end
  end

  it "never takes a point for reading, whatever the question's length and the time of who reads it" do
    texts = PropCheck::Generators.choose(0..400)
    PropCheck.forall(texts, PropCheck::Generators.choose(0..3), PropCheck::Generators.choose(0..100)) do |words, which, percent|
      factor = [1r, 5/4r, 3/2r, 2r][which]
      long = slides.map { |each| each.with(text: "reed " * words) }
      reading = Roost::Core::Game::Timing.of(long.first, Roost::Core::Session::Rules::CURRENT).reading * factor
      at = (reading * percent/100r).to_f
      expect(round("points", [answer(1, "q0", picked("o1"), at: at)], slides: long, factor: factor).totals[1]).to eq(100)
    end
  end

  it "tells the end from the last rank to the first, everybody once, ties together, and has something good for each" do
    each_made_up do |answers, _|
      played = round("points", answers)
      ranks = played.steps.map { |step| step.map(&:rank) }
      expect(ranks.map(&:first)).to eq(ranks.map(&:first).sort.reverse)
      expect([ranks.map(&:uniq).map(&:length).uniq, played.steps.flatten.map(&:seat_id).sort]).to eq([[1], (1..6).to_a])
      expect((1..6).map { |seat| played.best(seat) }).to all(be_a(described_class::Best))
    end
  end

  it "tells those far behind together, so that thirty presses are not thirty minutes" do
    many = (1..30).to_h { |id| [id, "S#{id}"] }
    rows = Roost::Core::Game::Standings.rows(many, many.keys.to_h { |id| [id, 31 - id] })
    played = round("points", [])
    allow(played).to receive(:standings).and_return(rows)
    expect(played.steps.map(&:length)).to eq([20] + ([1] * 10))
  end

  it "gives what being sure is worth, by rules.md, in steps of which the last is the figure" do
    sure = Roost::Core::Game::Style.make("sure", speed: 0)
    worth = [1r, 0r, 1/2r].to_h { |mark| [mark, [1, 2, 3, nil].map { |level| sure.earned(100, mark, sure: level) }] }
    expect(worth).to eq(1r => [33, 67, 100, 33], 0r => [0, -67, -200, 0], 1/2r => [17, 17, 17, 17])
    steps = []
    expect(sure.earned(90, 0r, sure: 3, steps: steps)).to eq(steps.last.value)
    expect(Roost::Web::Why.sentences(steps).first).to eq("90 points ÷ 3 × -6, for being very sure with a mark of 0 = -180.")
  end

  it "deals teams that differ by one at most" do
    PropCheck.forall(PropCheck::Generators.choose(1..40), PropCheck::Generators.choose(2..8)) do |seats, many|
      all = (1..many).map { |id| session::Team.new(id: id, name: "T#{id}", mark: 0) }
      sizes = session::Team.deal((1..seats).to_a, all, Random.new(seats)).values.tally
      sizes = all.map { |team| sizes.fetch(team.id, 0) }
      expect(sizes.max - sizes.min).to be <= 1
    end
  end
end
