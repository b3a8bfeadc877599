# frozen_string_literal: true

RSpec.describe "Coming back to a seat" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }
  let(:school) { Roost::Operations::SchoolClock.here }
  let(:seats) { Roost::Store::Seats.new }

  def join(row, name, device: nil, **more) = Roost::Operations::JoinSession.new.call(row.code, name, device: device, **more)

  def back(name, number) = Roost::Operations::ComeBack.new.call(again(session), name, number)

  def again(row) = Roost::Store::Sessions.new.find(row.id)

  def assign(entry: "free", class_id: "", **form)
    now = Roost::Store::Sessions.new.now
    lesson = Roost::Core::Lesson.new(title: "Birds", slides: [slide("q0", prompt: choice(id: "p0", keys: ["o1"]))])
    times = { opens_at: school.field(now - 60), closes_at: school.field(now + 7200), entry: entry, class_id: class_id.to_s }
    Roost::Operations::AssignLesson.new.call(account, kept_lesson(account, lesson),
                                             times.merge(form).transform_keys(&:to_s)).value
  end

  it "is by name and number, on any device, and what waits on the earlier one is still taken" do
    token = join(session, "Ada").value
    seat = seats.by_token(token)
    number = seats.number(seat[:id])
    expect(number).to match(/\A\d{4}\z/)
    moved = back("ada", number).value
    expect([seats.by_token(moved)[:id], seats.by_token(token),
            seats.by_former_token(token)[:id]]).to eq([seat[:id], nil, seat[:id]])
    command(session, "begin")
    command(session, "jump", slide: "s4")
    former = seats.by_former_token(token)
    expect(save(session, former, "s4", { "text" => ["typed offline"] }, final: false).state).to eq("draft")
  end

  it "waits a minute after five wrong numbers for that name, and for no other" do
    ada, bo = %w[Ada Bo].map { |name| seats.number(seats.by_token(join(session, name).value)[:id]) }
    wrong = format("%04d", (ada.to_i + 1) % 10_000)
    expect(Array.new(6) { back("Ada", wrong).reason }.tally)
      .to eq({ Roost::Operations::ComeBack::WRONG => 5, Roost::Operations::ComeBack::WAIT => 1 })
    expect([back("Ada", ada).ok?, back("Bo", bo).ok?]).to eq([false, true])
    database[:counters].update(expires_at: Sequel.lit("now() - interval '1 second'"))
    expect(back("Ada", ada)).to be_ok
  end

  it "is guessed no oftener by many at once than by one after the other" do
    wrong = format("%04d", (seats.number(seats.by_token(join(session, "Ada").value)[:id]).to_i + 1) % 10_000)
    session
    said = Array.new(30) { Thread.new { back("Ada", wrong).reason } }.map(&:value)
    expect(said.count(Roost::Operations::ComeBack::WRONG)).to be <= Roost::Operations::ComeBack::MOST_WRONG
  end

  it "is not by a number where a pass, a keypad or a practice class sits" do
    Roost::Operations::JoinSession.new.rehearse(session.code, "Ada (practice)")
    expect([database[:seats].get(:number), back("Ada (practice)", "").ok?,
            back("Ada (practice)", nil).ok?]).to eq([nil, false, false])
  end

  it "frees a name for whoever it belongs to, when the teacher says so" do
    seat = seats.by_token(join(session, "Ada").value)
    expect(Roost::Operations::FreeName.new.call(teacher(email: "moss@heronsgate.example"), session.id, seat[:id])).to be_nil
    expect(Roost::Operations::FreeName.new.call(account, session.id, seat[:id])).to be_ok
    expect(seats.by_token(join(session, "Ada").value)[:name]).to eq("Ada")
    expect(moment(session).names.values).to eq(["Ada"])
  end

  it "keeps a device out whose seat was taken out, whatever name it types" do
    seat = seats.by_token(join(session, "Imp", device: "d" * 40).value)
    Roost::Operations::RemoveSeat.new.call(account, session.id, seat[:id])
    expect(join(session, "Ada", device: "d" * 40).reason).to eq(Roost::Operations::JoinSession::SENT_AWAY)
    expect(join(session, "Ada", device: "e" * 40)).to be_ok
  end

  describe "to an assignment" do
    let(:kestrel) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
    let(:ada) { Roost::Store::Students.new.of_class(kestrel).first }
    let(:pass) { Roost::Core::StudentPass.make(SecureRandom).tap { |made| Roost::Store::Students.new.give_pass(ada.id, made) } }

    before { Roost::Operations::FillClass.new.fill(account, kestrel, Roost::Core::ClassList.paste("Ada Holm\nBo Marsh").value) }

    it "under another name on the same device is no other attempt, where attempts are limited" do
      row = assign
      join(row, "Ada", device: "d" * 40)
      expect(join(row, "Ada two",
                  device: "d" * 40).reason).to eq("This device has started already, as Ada. Continue there, or ask your teacher.")
      expect(join(row, "Bo", device: "e" * 40)).to be_ok
      free = assign(attempts: "")
      expect(Array.new(2) { |number| join(free, "Ada #{number}", device: "d" * 40).ok? }).to eq([true, true])
    end

    it "under a name of the list that has a pass needs that pass, unless the teacher decides otherwise" do
      pass
      row = assign(entry: "list", class_id: kestrel)
      expect(join(row, nil, student_id: ada.id).reason).to start_with("Ada has a student pass.")
      expect(join(row, nil, student_id: ada.id, pass: "CDFGHJKMNPQR").ok?).to be(false)
      expect(join(row, nil, student_id: ada.id, pass: pass.downcase)).to be_ok
      expect(join(row, "Bo")).to be_ok
      easy = assign(entry: "list", class_id: kestrel, names_alone: "1")
      expect(join(easy, nil, student_id: ada.id)).to be_ok
    end

    it "after somebody handed in a blank there goes on when the teacher undoes it; she sees which devices were there" do
      row = assign(feedback: "explained")
      seat = seats.by_token(join(row, "Ada", device: "d" * 40).value)
      take = -> { Roost::Operations::TakeSitting.new.call(seat, again(row), begins: true) }
      taken = take.call
      %w[d e].each { |letter| Roost::Operations::VisitSeat.new.call(seat, again(row), device: letter * 40, browser: "Mobile") }
      Roost::Operations::HandInSitting.new.call(seat, taken)
      Roost::Store::Tellings.new.note(seat[:id], ["q0"], 1)
      expect(save(row, seat, "q0", picked("o1")).state).to eq("late")
      undo = ->(by) { Roost::Operations::UndoHandIn.new.call(by, row.id, seat[:id]) }
      expect([undo.call(teacher(email: "moss@heronsgate.example")), undo.call(account).ok?]).to eq([nil, true])
      expect(save(row, seat, "q0", picked("o1"), save_no: 2).state).to eq("final")
      expect(undo.call(account).reason).to eq(Roost::Operations::UndoHandIn::NOT_IN)
      expect(seats.devices([seat[:id]]).fetch(seat[:id]).length).to eq(2)
    end
  end

  it "sends what can't be taken to the teacher, as it was typed, once and within bounds" do
    seat = seats.by_token(join(session, "Ada").value)
    typed = ->(text, slide: "s4") { Roost::Operations::SendTyped.new.call(seat, { "slide" => slide, "text" => text }) }
    expect([typed.call("They follow"), typed.call("They follow")]).to all(be_ok)
    expect([typed.call(" ").ok?, typed.call("x", slide: "s1").ok?, typed.call("x" * 10_001).ok?]).to eq([false] * 3)
    expect(Roost::Store::SentTexts.new.of([seat[:id]])).to eq({ [seat[:id], "s4"] => ["They follow"] })
    40.times { |number| typed.call("text #{number}") }
    expect(typed.call("one more").reason).to eq(Roost::Operations::SendTyped::MANY)
  end
end
