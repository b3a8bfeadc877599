# frozen_string_literal: true

# Game rounds against a real database: what is played again, by teams, at the board, and what goes wrong meanwhile.
RSpec.describe "Game rounds in a session" do
  let(:account) { teacher }
  let(:rounds) { { "style" => "steady", "answering" => "alone" } }
  let(:lesson) do
    slides = %w[q0 q1 q2].map { |id| slide(id, prompt: game_choice(id: "p#{id}", time_limit: 30)) }
    Roost::Core::Lesson.new(title: "Birds", slides: slides, sections: [section("r", "game", %w[q0 q1 q2], title: "Who stays")])
  end
  let(:session) { kept_session(account, lesson, teams: teams, team_count: "2") }
  let(:teams) { "" }
  let(:desk) { Roost::Operations::CommandSession.new }

  def seats(*names) = names.map { |name| take_seat(session, name).first }

  def play(**how)
    command(session, "begin") if moment(session).state.lobby?
    command(session, "play", section: "r", **how)
  end

  def give(seat, slide, right, attempt: 1, **more)
    Roost::Store::Deliveries.new.note(session.id, slide, [seat[:id]], attempt: attempt)
    save(session, seat, slide, { "options" => [right ? "o1" : "o2"] }, attempt: attempt, **more).state
  end

  def close = command(session, "close")

  # The second of grace after answering is over, and everybody was there all the time.
  def past_grace
    database[:openings].where(session_id: session.id).exclude(closed_at: nil)
                       .update(closed_at: Sequel.lit("closed_at - interval '2 seconds'"))
    database[:seats].where(session_id: session.id).update(joined_at: Sequel.lit("joined_at - interval '1 minute'"))
  end

  def put(seat, team) = Roost::Operations::MoveToTeam.new.call(account, session.id, seat[:id], team.id)

  def all_teams = Roost::Store::Teams.new.of(session.id)

  def points = moment(session).round.totals.transform_keys { |id| moment(session).names[id] }

  def team_points = moment(session).round.team_totals.values

  def view(seat) = Roost::Core::Session::Views.seats(moment(session), [seat[:id]]).keys.first

  it "are kept with the style they are played in, and played again as attempts of their own" do
    ada, bo, cleo = seats("Ada", "Bo", "Cleo")
    play(style: "steady", after: "0")
    play(style: "sure", after: "0") # a second click
    expect([give(ada, "q0", true), give(bo, "q0", false)]).to eq(%w[final final])
    close
    expect(points).to eq("Ada" => 100, "Bo" => 0, "Cleo" => 0)
    past_grace
    play(style: "sure", after: "1")
    now = moment(session)
    expect([now.attempt, now.state.opening.attempt, now.given.length]).to eq([2, 2, 0])
    expect(now.state.plays["r"].map { |each| [each.number, each.style] }).to eq([[1, "steady"], [2, "sure"]])
    give(bo, "q0", false, attempt: 2)
    # What still waited on devices from the time before is of that time: it is late there, and read in no other.
    expect([give(ada, "q0", false, save_no: 2), give(cleo, "q0", true)]).to eq(%w[refused late])
    expect(moment(session).given.keys).to eq([bo[:id]])
    close
    expect(points).to eq("Ada" => 0, "Bo" => 0, "Cleo" => 0)
    # Looked back on, the first time counts, after which everybody was told.
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id))
    expect([ada, bo].map { |seat| record.outcome("q0", seat[:id]).mark }).to eq([1, 0])
  end

  it "ask how sure one is, and who did not say has the least to lose" do
    ada, bo, cleo, dan = seats("Ada", "Bo", "Cleo", "Dan")
    play(style: "sure")
    { ada => [true, "3"], bo => [false, "3"], cleo => [false, nil], dan => [true, "9"] }.each do |seat, (right, sure)|
      Roost::Store::Deliveries.new.note(session.id, "q0", [seat[:id]])
      fields = { "options" => [right ? "o1" : "o2"], "certainty" => sure && [sure] }.compact
      expect(save(session, seat, "q0", fields).state).to eq("final")
    end
    close
    expect(points).to eq("Ada" => 100, "Bo" => -200, "Cleo" => 0, "Dan" => 33)
    expect(moment(session).given.values.map(&:value).uniq).to eq([{ "options" => ["o1"] }, { "options" => ["o2"] }])
  end

  it "have one total and a goal where the class plays together, and rank nobody" do
    ada, bo = seats("Ada", "Bo")
    play(style: "together", goal: "50")
    give(ada, "q0", true)
    give(bo, "q0", false)
    close
    past_grace
    command(session, "show", what: "standings")
    screen = Roost::Core::Session::Views.screen(moment(session))
    expect([screen.standings, screen.together.total, screen.together.possible, screen.together.goal]).to eq([nil, 100, 200, 100])
    expect([view(bo).standing.rank, view(bo).standing.points]).to eq([nil, 0])
    expect(Roost::Core::Session::Views.desk(moment(session)).standings).to be_nil
  end

  describe "by teams" do
    let(:teams) { "dealt" }

    it "give a team the mean of those who were in it when the question opened, so that three against two is fair" do
      people = seats("Ada", "Bo", "Cleo", "Dan", "Eli")
      first, second = all_teams
      people.each_with_index { |seat, at| put(seat, at < 3 ? first : second) }
      play(style: "steady")
      people.each_with_index { |seat, at| give(seat, "q0", [0, 3].include?(at)) }
      late = seats("Fay").first
      put(late, first)
      give(late, "q0", true) # came while it was open: points of their own, and no part of the team's
      close
      expect(team_points).to eq([33, 50])
      expect(points["Fay"]).to eq(100)
      put(people[0], second) # between two questions
      command(session, "next")
      people.each { |seat| give(seat, "q1", seat == people[0]) }
      close
      expect(team_points).to eq([33 + 0, 50 + 33])
    end

    it "take who comes late into the smallest team, of equals into that with fewer points" do
      ada, bo = seats("Ada", "Bo")
      first, second = all_teams
      put(ada, first)
      put(bo, second)
      play(style: "steady")
      give(ada, "q0", true)
      close
      cleo, dan = seats("Cleo", "Dan").map { |seat| moment(session).record.seat(seat[:id]).team_id }
      expect([cleo, dan]).to eq([second.id, first.id])
    end

    it "let any device of a team set the one answer, of which the last counts, whoever set it" do
      ada, bo, cleo = seats("Ada", "Bo", "Cleo")
      first, second = all_teams
      [ada, bo].each { |seat| put(seat, first) }
      put(cleo, second)
      play(style: "steady", answering: "one")
      give(ada, "q0", false)
      expect([view(bo).team_answer.set_by, view(bo).team_answer.own, view(cleo).team_answer]).to eq(["Ada", false, nil])
      give(bo, "q0", true)
      expect([view(ada).team_answer.set_by, view(ada).team_answer.value]).to eq(["Bo", { "options" => ["o1"] }])
      expect(moment(session).given.length).to eq(1)
      expect(moment(session).answered).to eq(2)
      close
      expect([team_points, points]).to eq([[100, 0], { "Ada" => 100, "Bo" => 100, "Cleo" => 0 }])
    end

    it "settle by the database's clock what two devices set within a moment: one answer, the same to all" do
      ada, bo = seats("Ada", "Bo")
      [ada, bo].each { |seat| put(seat, all_teams.first) }
      play(style: "steady", answering: "one")
      at_once([[ada, true], [bo, false]]) { |seat, right| give(seat, "q0", right) }
      told = [ada, bo].map { |seat| view(seat).team_answer.to_h.slice(:set_by, :value) }
      expect(told.uniq.length).to eq(1)
      last = database[:answers].where(session_id: session.id).order(Sequel.desc(:received_at), Sequel.desc(:id)).first
      expect(told.first[:value]["options"]).to eq(last[:value]["options"])
    end

    it "go on on another device when a team's only one dies" do
      ada = seats("Ada").first
      put(ada, all_teams.first)
      play(style: "steady", answering: "one")
      give(ada, "q0", true)
      close
      command(session, "next")
      number = Roost::Store::Seats.new.number(ada[:id])
      back = Roost::Operations::ComeBack.new.call(Roost::Store::Sessions.new.find(session.id), "Ada", number).value
      again = Roost::Store::Seats.new.by_token(back)
      expect(again[:id]).to eq(ada[:id])
      give(again, "q1", true)
      close
      expect(team_points).to eq([200, 0])
    end

    it "talk first: answers open by themselves once the talk time is over, and at once when the teacher opens them" do
      seats("Ada", "Bo")
      play(style: "steady", answering: "talk", talk: "20")
      now = moment(session)
      expect([now.state.talk.words, now.state.opening, now.due_at]).to eq(["Talk with your team", nil, now.state.talk.deadline])
      desk.by_clock(session.id, "expire")
      expect(moment(session).state.opening).to be_nil # it is not over yet
      earlier = moment(session).state.to_document.then { |state| state.merge("talk" => state["talk"].merge("deadline" => 1.0)) }
      database[:sessions].where(id: session.id).update(state: Sequel.pg_jsonb(earlier))
      desk.by_clock(session.id, "expire")
      expect([moment(session).state.open?, moment(session).state.talk]).to eq([true, nil])
      command(session, "next")
      command(session, "open")
      expect([moment(session).state.open?, moment(session).state.talk]).to eq([true, nil])
    end
  end

  describe "at the board" do
    let(:session) { kept_session(account, board_lesson) }
    let(:board_lesson) do
      number = Roost::Core::Kinds::Number::Prompt.new(id: "pn", settings: { "value" => "7" })
      lesson.with(slides: [*lesson.slides, slide("q3", prompt: number)],
                  sections: [section("r", "game", %w[q0 q1 q2 q3], title: "Who stays")])
    end

    def make(names) = Roost::Operations::BoardTeams.new.call(account, session.id, names)

    def enter(seat_id, **what) = Roost::Operations::EnterAnswer.new.call(account, session.id, seat_id, **what)

    it "are two to eight teams without devices, whose answers the teacher enters with one touch" do
      expect(make("Reed").reason).to start_with("Two to eight teams")
      expect(make("Reed\nreed").reason).to start_with("Two teams have the same name.")
      reed, sedge = make("Reed\n\nSedge\n").value
      expect(make("Iris\nMint").reason).to eq("This session has teams already.")
      play(style: "points", speed: "0.5")
      expect(moment(session).seat_statuses.map { |each| [each.name, each.here] }).to eq([["Reed", true], ["Sedge", true]])
      put_back(session, 25, :opened_at, :clock_at)
      expect([enter(reed, keys: "A"), enter(sedge, keys: "B")]).to all(be_ok)
      close
      expect(enter(sedge, keys: "C")).to be_ok # seen too late, and mended all the same
      expect(team_points).to eq([100, 0])
      command(session, "open")
      expect(enter(reed, keys: "Z").reason).to start_with("That isn't one of the answers.")
      expect(enter(sedge, keys: "A")).to be_ok # it was the wrong touch
      board = Roost::Core::Session::Views.desk(moment(session)).board
      expect(board.map { |team| [team.name, team.given] }).to eq([%w[Reed A], %w[Sedge A]])
      close
      expect(team_points).to eq([100, 100]) # the order of touches is nobody's speed
      3.times { command(session, "next") }
      enter(reed, mark: "right")
      enter(sedge, mark: "wrong")
      close
      expect(team_points).to eq([200, 100])
      enter(sedge, mark: "part")
      expect(team_points).to eq([200, 150])
    end

    it "are of the teacher who runs the session, and of seats without a device only" do
      reed, = make("Reed\nSedge").value
      ada = seats("Ada").first
      play
      expect(enter(ada[:id], keys: "A").reason).to eq("That team has a device of its own.")
      other = teacher(email: "moss@heronsgate.example")
      expect(Roost::Operations::EnterAnswer.new.call(other, session.id, reed, keys: "A")).to be_nil
      expect(Roost::Operations::BoardTeams.new.call(other, session.id, "A\nB")).to be_nil
    end
  end

  it "end step by step, also when the program that ran it is gone, and never before the last answers are in" do
    ada, bo = seats("Ada", "Bo")
    play(style: "steady")
    give(ada, "q0", true)
    give(bo, "q0", false)
    command(session, "jump", slide: "r-end")
    command(session, "reveal", step: "1")
    expect([moment(session).state.showing, moment(session).state.to_show]).to eq([{}, "reveal"])
    past_grace
    desk.by_clock(session.id, "expire")
    ending = -> { Roost::Core::Session::Views.screen(moment(session)).ending }
    expect([ending.call.step, ending.call.of, ending.call.told.flatten.map(&:name)]).to eq([1, 3, ["Bo"]])
    expect([view(bo).own_end.rank, view(ada).own_end]).to eq([2, nil])
    command(session, "reveal", step: "1") # a second click
    expect(ending.call.step).to eq(1)
    command(session, "run_end")
    back = ->(state) { state.merge("showing" => state["showing"].merge("next_at" => 1.0)) }
    3.times do
      desk.by_clock(session.id, "expire") # by whatever process is there
      document = moment(session).state.to_document
      next unless document["showing"].key?("next_at")

      database[:sessions].where(id: session.id).update(state: Sequel.pg_jsonb(back.call(document)))
    end
    expect([ending.call.step, ending.call.runs, ending.call.over?]).to eq([3, false, true])
    expect(view(ada).own_end.best.name).to eq(:points)
    expect(moment(session).due_at).to be_nil
  end

  it "take answers again when the teacher closed by mistake and opens again, and lose none" do
    ada, bo = seats("Ada", "Bo")
    play(style: "steady")
    give(ada, "q0", true)
    close
    command(session, "open")
    expect(give(bo, "q0", true)).to eq("final")
    close
    expect(points).to eq("Ada" => 100, "Bo" => 100)
  end

  it "go on under another name on the same device: what was earned stays with the seat, and with its team" do
    ada, bo = seats("Ada", "Bo")
    play(style: "steady")
    give(ada, "q0", true)
    close
    expect(Roost::Operations::RenameSeat.new.call(account, session.id, ada[:id], "Zoe")).to be_ok
    command(session, "next")
    [ada, bo].each { |seat| give(seat, "q1", true) }
    close
    expect(points).to eq("Zoe" => 200, "Bo" => 100)
  end

  it "compare everybody with the last time they played, in the present style, or with the middle of the class" do
    ada, bo, cleo, dan = seats("Ada", "Bo", "Cleo", "Dan")
    play(style: "steady")
    [ada, bo, cleo].each_with_index { |seat, at| give(seat, "q0", at.zero?) }
    close
    play(style: "points", speed: "0")
    [ada, bo, cleo, dan].each_with_index { |seat, at| give(seat, "q0", at < 2, attempt: 2) }
    close
    against = moment(session).against.transform_keys { |id| moment(session).names[id] }
    expect(against.transform_values { |each| [each.against, each.difference] })
      .to eq("Ada" => [:yourself, 0], "Bo" => [:yourself, 100], "Cleo" => [:yourself, 0], "Dan" => [:class, -100])
  end
end
