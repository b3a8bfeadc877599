# frozen_string_literal: true

RSpec.describe "Running a session" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }

  it "freezes the lesson: later edits never touch it" do
    Roost::Operations::ChangeLesson.new.call(account, session.lesson_id) { |lesson| Roost::Core::Reading.ok(lesson.without_slides(["s1"])) }
    expect(Roost::Store::Sessions.new.lesson(session.id).slides.length).to eq(5)
  end

  it "records every command with its time and author, and none that changed nothing" do
    Roost::Operations::CommandSession.new.call(account, session.id, "begin")
    2.times { command(session, "next", from: "s1") }
    commands = Roost::Store::Sessions.new.commands(session.id)
    expect(commands.map { |each| [each.name, each.account_id] }).to eq([["begin", account], ["next", account]])
  end

  it "takes commands, questions, corrections and practice classes from nobody but its teacher" do
    command(session, "begin")
    other = teacher(email: "moss@heronsgate.example")
    tries = [Roost::Operations::CommandSession.new.call(other, session.id, "next"),
             Roost::Operations::AskNow.new.call(other, session.id, "Yes or no", "", from: "s1"),
             Roost::Operations::CorrectQuestion.new.call(other, session.id, "s2", {}, in_lesson: false),
             Roost::Operations::PracticeClass.new.invite(other, session.id, 3)]
    expect(tries).to eq([nil] * 4)
    command(session, "end")
    delete = ->(account) { Roost::Operations::DeleteSession.new.call(account, session.id) }
    expect([delete.call(other), Roost::Store::Sessions.new.find(session.id).deleted]).to eq([false, false])
    expect([delete.call(session.account_id), Roost::Store::Sessions.new.find(session.id).deleted]).to eq([true, true])
    expect([moment(session).state.slide_id, moment(session).seats]).to eq(["s1", []])
  end

  it "moves one slide when two Desks send the same command at once" do
    command(session, "begin")
    at_once((1..8).to_a) { command(session, "next", from: "s1") }
    expect(moment(session).state.slide_id).to eq("s2")
  end

  describe "joining" do
    def join(code, name) = Roost::Operations::JoinSession.new.call(code, name)

    it "takes a code in any case, and numbers a name that is taken" do
      join(session.code.downcase.insert(3, " "), "Bo")
      join(session.code, "bo")
      expect(Roost::Store::Seats.new.names(session.id)).to match_array(["Bo", "bo 2"])
    end

    it "asks for another name where the database takes two for one" do
      join(session.code, "i")
      expect(join(session.code, "İ").reason).to eq("That name is taken. Add a letter or a number to it.")
      expect(join(session.code, "İ L")).to be_ok
    end

    it "gives each of thirty-five of one name a seat of its own" do
      session
      at_once((1..35).to_a) { join(session.code, "Bo") }
      expect(Roost::Store::Seats.new.names(session.id).uniq.length).to eq(35)
    end

    it "turns away more than the teacher expects, however many come at once, until she makes room" do
      command(session, "make_room", seats: "5")
      at_once((1..20).to_a) { |number| join(session.code, "Student #{number}") }
      expect(Roost::Store::Seats.new.names(session.id).length).to eq(5)
      expect(join(session.code, "Late").reason).to eq("This lesson is full. Your teacher can make room for more.")
      command(session, "make_room", seats: "6")
      expect(join(session.code, "Late")).to be_ok
      expect(%w[0 1501 x].map { |seats| command(session, "make_room", seats: seats).ok? }).to all(be(false))
      expect(Roost::Core::Session::State.start.room_for).to eq(60)
    end

    it "lets nobody in through a locked door, and shows no code then" do
      command(session, "lock")
      expect(join(session.code, "Bo").reason).to start_with("Joining is locked.")
      expect(Roost::Core::Session::Views.screen(moment(session)).code).to be_nil
      command(session, "unlock")
      expect(join(session.code, "Bo")).to be_ok
    end

    it "says of a wrong code and of an ended one what to do" do
      expect(join("ZZZ999", "Bo").reason).to eq("That code isn't open. Check the board, or ask your teacher.")
      command(session, "end")
      expect(join(session.code, "Bo").reason).to eq("That lesson has ended. Ask your teacher for a new code.")
    end

    it "knows a seat by its token only, and keeps no token" do
      _seat, token = take_seat(session)
      expect(Roost::Store::Seats.new.by_token("#{token[0..-2]}x")).to be_nil
      expect(database[:seats].all.to_s).not_to include(token)
    end
  end

  it "deletes a session that has ended and brings it back, but not one that runs" do
    sessions = Roost::Store::Sessions.new
    expect(sessions.mark_deleted(account, session.id, true)).to be(false)
    command(session, "end")
    expect(sessions.mark_deleted(account, session.id, true)).to be(true)
    expect(Roost::Store::PastSessions.new.all_of(account)).to be_empty
    sessions.mark_deleted(account, session.id, false)
    expect(Roost::Store::PastSessions.new.all_of(account).map(&:id)).to eq([session.id])
  end

  describe "one that nobody ends" do
    def pass(hours)
      back = ->(column) { Sequel.lit("? - make_interval(hours => ?)", Sequel[column], hours) }
      database[:sessions].update(created_at: back.call(:created_at))
      database[:session_events].update(at: back.call(:at))
      database[:seats].update(seen_at: back.call(:seen_at))
    end

    def close = Roost::Operations::CloseSessions.new.call

    it "closes four hours after the last sign of life, and says so" do
      take_seat(session)
      command(session, "begin")
      pass(5)
      database[:seats].update(seen_at: Sequel.lit("now() - interval '3 hours'"))
      expect(close).to eq([])
      pass(2)
      expect([close, close]).to eq([[session.id], []])
      expect(moment(session).state).to be_ended
      expect(Roost::Store::Sessions.new.closed_itself?(session.id)).to be(true)
    end

    it "is kept by a command, and not by a practice class" do
      command(session, "begin")
      Roost::Operations::PracticeClass.new.invite(account, session.id, 3)
      pass(5)
      command(session, "next", from: "s1")
      expect(close).to eq([])
      pass(5)
      database[:seats].update(seen_at: Sequel.lit("now()"))
      expect(close).to eq([session.id])
    end

    it "says nothing of the clock when its teacher has ended it" do
      command(session, "end")
      expect(Roost::Store::Sessions.new.closed_itself?(session.id)).to be(false)
    end
  end

  describe "asking on the spot" do
    def ask(words, heading = "", from: "s1")
      Roost::Operations::AskNow.new.call(account, session.id, words, heading, from: from)
    end

    before { command(session, "begin") }

    it "gives the question a slide of its own in the session, once, and leaves the lesson alone" do
      2.times { expect(ask("Yes or no", "Did you hear that?")).to be_ok }
      room = moment(session)
      expect(room.lesson.slides.map(&:name).first(3)).to eq(["Dusk over the marsh", "Did you hear that?", "Have you seen one?"])
      expect(room.slide.prompt.options.map(&:text)).to eq(%w[Yes No])
      expect(room.state).to be_open
      expect(Roost::Store::Lessons.new.find(account, session.lesson_id).lesson.slides.length).to eq(5)
    end

    it "offers every kind, and keeps the answers like any other" do
      seat = take_seat(session).first
      Roost::Core::Kinds.on_the_spot.each_key { |words| expect(ask(words, from: moment(session).state.slide_id)).to be_ok }
      ask("Sketch", from: moment(session).state.slide_id)
      asked = moment(session).slide
      expect(asked.name).to eq("Asked now: sketch")
      expect(save(session, seat, asked.id,
                  { "strokes" => ['[{"tool":"pen","colour":"ink","points":[1,1]}]'] }).state).to eq("final")
      results = Roost::Core::Analysis::Results.new(moment(session).record)
      expect((results.slides + results.passed_over).length).to eq(Roost::Core::Kinds.on_the_spot.length + 1)
    end

    it "refuses what it does not know" do
      expect(ask("Roulette").reason).to eq("That can't be asked on the spot. Reload the page.")
    end
  end

  describe "the practice class" do
    let(:practice) { Roost::Operations::PracticeClass.new }

    def open_since(seconds)
      put_back(session, seconds, :opened_at, slide: moment(session).state.slide_id)
    end

    it "sits down, is here, and answers each kind plausibly in its own time" do
      expect(practice.invite(account, session.id, 24).value).to eq(24)
      expect(moment(session).seats).to all(have_attributes(here: true, practice: true))
      command(session, "begin")
      { "s2" => 36, "s4" => 36, "s5" => 36 }.each do |slide_id, seconds|
        command(session, "jump", slide: slide_id)
        practice.carry_on(session.id)
        expect(moment(session).given(slide_id).length).to be < 12
        open_since(seconds)
        practice.carry_on(session.id)
        expect(moment(session).given(slide_id).length).to be > 15
      end
      before = database[:answers].count
      practice.carry_on(session.id)
      expect(database[:answers].count).to eq(before)
    end

    it "comes in also while another process is letting it act" do
      Roost::Store::Seats.new.alone(Roost::Operations::PracticeClass::LOCK, session.id) do
        Thread.new { expect(practice.invite(account, session.id, 5).value).to eq(5) }.join
      end
    end

    it "has at most thirty students" do
      practice.invite(account, session.id, 24)
      expect(practice.invite(account, session.id, 7).reason).to eq("A practice class has at most 30 students; 24 are here.")
    end
  end

  it "loads the demo data once, the same each time" do
    Roost::Setup::Demo.new.call
    marks = lambda do
      database[:sessions].select_order_map(:id).map do |id|
        record = moment(Roost::Store::Sessions.new.find(id)).record
        lines = Roost::Core::Analysis::Results.new(record).lines.map { |line| [line.seat.name, line.share, line.points] }
        [lines, record.missing.map(&:name), record.seats.count { |seat| record.late(seat) }]
      end
    end
    first = marks.call
    expect(first.map { |lines, missing, late| [lines.length, missing.length, late] })
      .to eq([[22, 2, 1], [26, 1, 0], [23, 1, 1], [25, 2, 0], [27, 0, 2], [21, 3, 0], [26, 1, 1], [24, 0, 2], [17, 7, 0]])
    expect(Roost::Store::Sessions.new.last_time(database[:sessions].max(:id)).length).to be > 2
    expect { Roost::Setup::Demo.new.call }.not_to(change { database[:answers].count })
    empty_tables
    Roost::Setup::Demo.new.call
    expect(marks.call).to eq(first)
  end
end
