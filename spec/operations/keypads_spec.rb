# frozen_string_literal: true

require_relative "../../standins/keypads/simulated"

RSpec.describe "Handheld keypads" do
  let(:account) { teacher }
  let(:keypads) { Roost::Operations::Keypads.new }
  let(:session) { kept_session(account, lesson) }
  let(:lesson) do
    slides = [slide("s1", prompt: choice(id: "p1", keys: ["o2"])),
              slide("s2", prompt: choice(id: "p2", texts: %w[Yes No], poll: true)),
              slide("s3", prompt: Roost::Core::Kinds.named("number").new(id: "p3", settings: {})),
              slide("s4", prompt: writing(id: "p4"))]
    Roost::Core::Lesson.new(title: "Marsh", slides: slides)
  end

  def knock = keypads.knock(session.code, "Blue box").value

  def let_in(token)
    id = Roost::Store::Receivers.new.by_token(token).id
    keypads.answer_knock(account, session.id, id, allowed: true)
    token
  end

  # The present question, as the receiver is told of it.
  def press(token, number, keys, question: keypads.status(token).question)
    keypads.event(token, { "keypad" => number, "answer" => keys, "question" => question })
  end

  def seats_of(token) = Roost::Store::Receivers.new.then { |all| all.keypads(session.id, all.by_token(token).id) }

  def given(slide) = moment(session).given(slide).transform_keys { |id| moment(session).names[id] }.transform_values(&:value)

  it "come in only when the session's teacher lets their receiver in, and go out again" do
    token = knock
    expect(keypads.status(token).state).to eq(:waiting)
    expect(keypads.event(token, { "keypad" => "1", "range" => "in" }).reason).to eq("The teacher hasn't connected this receiver.")
    other = teacher(email: "moss@heronsgate.example")
    expect(keypads.answer_knock(other, session.id, Roost::Store::Receivers.new.by_token(token).id, allowed: true)).to be_nil
    let_in(token)
    expect(keypads.event(token, { "keypad" => "1", "range" => "in" })).to be_ok
    keypads.answer_knock(account, session.id, Roost::Store::Receivers.new.by_token(token).id, allowed: false)
    expect(press(token, "1", "A").reason).to start_with("The teacher hasn't")
    expect([keypads.status("nobody"), keypads.event("nobody", {})]).to eq([nil, nil])
    expect(keypads.knock("XXXXXX", "Box").reason).to start_with("That code isn't open.")
  end

  it "answer letters, yes and no, and numbers; change their answer; and can't answer the rest" do
    token = let_in(knock)
    command(session, "begin")
    press = ->(number, keys) { press(token, number, keys) }
    expect([press.call("1", "a"), press.call("2", "B"), press.call("1", "B")]).to all(be_ok)
    expect(given("s1")).to eq("Keypad 1" => { "options" => ["o2"] }, "Keypad 2" => { "options" => ["o2"] })
    expect(press.call("1", "Z").reason).to eq("That key answers nothing here.")
    expect(press.call("1", "AB").reason).to eq("Choose just one option.")
    command(session, "next")
    press.call("1", "N")
    expect(given("s2")).to eq("Keypad 1" => { "options" => ["o2"] })
    command(session, "next")
    expect(keypads.status(token).takes).to eq(:digits)
    press.call("2", "12.5")
    expect(given("s3")["Keypad 2"]).to include("number" => "25/2")
    command(session, "next")
    expect(keypads.status(token).takes).to be_nil
    expect(press.call("1", "A").reason).to eq("This question can't be answered with a keypad.")
    html = Roost::Web::Fragments.new.desk(Roost::Core::Session::Views.desk(moment(session)), 0.0)
    expect(html.gsub(/\s+/, " ")).to include("2 keypads can't answer this question.")
  end

  it "don't answer where each has another order, or there are more options than keys" do
    mixed = choice(shuffle: true)
    many = choice(texts: ("a".."g").to_a)
    expect([mixed, many].map(&:keypad_takes)).to eq([nil, nil])
  end

  it "are somebody's of the class: by their number, or as the teacher says; each once" do
    id = Roost::Operations::KeepClass.new.create(account, { "name" => "Kestrel" }).value
    Roost::Operations::FillClass.new.fill(account, id, Roost::Core::ClassList.paste("Ada Holm\t7K-1\nBo Marsh\t7K-2").value)
    database[:sessions].where(id: session.id).update(class_id: id)
    token = let_in(knock)
    expect(keypads.event(token, { "keypad" => "1", "student" => "7K-1" }).value).to eq("Ada")
    again = keypads.event(token, { "keypad" => "2", "student" => "7K-1" })
    expect(again.reason).to start_with("Nobody in the class has that number")
    seat = seats_of(token).fetch("2")[:id]
    bo = Roost::Store::Students.new.of_class(id).last.id
    expect(keypads.give(teacher(email: "moss@heronsgate.example"), session.id, seat, bo)).to be_nil
    expect(keypads.give(account, session.id, seat, bo).value).to eq("Bo")
    expect(moment(session).missing).to eq([])
  end

  it "are away out of range, and say when a battery is low" do
    token = let_in(knock)
    here = -> { moment(session).seats.map(&:here) }
    keypads.event(token, { "keypad" => "1", "battery" => "low" })
    expect([here.call, seats_of(token)["1"][:battery_low]]).to eq([[true], true])
    keypads.event(token, { "keypad" => "1", "range" => "out" })
    expect(here.call).to eq([false])
    keypads.event(token, { "keypad" => "1", "range" => "in" })
    expect(here.call).to eq([true])
  end

  it "are not kept out by others that knock and never look, nor shown to the teacher" do
    token = knock
    keypads.status(token)
    expect(Array.new(90) { |number| keypads.knock(session.code, "Box #{number}").ok? }).to all(be(true))
    expect([keypads.status(token).state, Roost::Store::Receivers.new.of(session.id).map(&:name)]).to eq([:waiting, ["Blue box"]])
    expect(keypads.event(let_in(token), { "keypad" => "1", "range" => "in" })).to be_ok
  end

  it "are let in for eight receivers, called otherwise where two would be called alike" do
    tokens = Array.new(9) { knock.tap { |token| keypads.status(token) } }
    names = Roost::Store::Receivers.new.of(session.id).map(&:name)
    expect(names).to eq(["Blue box", *(2..9).map { |number| "Blue box #{number}" }])
    ids = tokens.map { |token| Roost::Store::Receivers.new.by_token(token).id }
    let = ids.map { |id| keypads.answer_knock(account, session.id, id, allowed: true) }
    expect([let.count(&:ok?), let.last.reason]).to eq([8, Roost::Operations::Keypads::ENOUGH])
  end

  it "share no seat with those of another receiver, and have their own again when theirs is started anew" do
    one, other = Array.new(2) { let_in(knock) }
    command(session, "begin")
    press(one, "7", "A")
    press(other, "7", "B")
    expect(given("s1").values.map { |value| value["options"] }).to eq([%w[o1], %w[o2]])
    database[:receivers].update(seen_at: Sequel.lit("clock_timestamp() - interval '1 minute'"))
    keypads.status(one)
    again = knock
    database[:receivers].where(id: Roost::Store::Receivers.new.by_token(again).id).update(name: "Blue box 2")
    let_in(again)
    expect(seats_of(again)["7"][:name]).to eq("Keypad 7 2")
  end

  it "answer the question that was asked when they were pressed, and no other" do
    token = let_in(knock)
    command(session, "begin")
    first = keypads.status(token).question
    press(token, "1", "A")
    command(session, "next")
    expect(press(token, "1", "B", question: first)).to be_ok
    expect([given("s1"), given("s2")]).to eq([{ "Keypad 1" => { "options" => ["o2"] } }, {}])
    put_back(session, 30, :opened_at, :closed_at, slide: "s1")
    press(token, "1", "C", question: first)
    expect([given("s1")["Keypad 1"], given("s2")]).to eq([{ "options" => ["o2"] }, {}])
    refused = ["", "s1", "nowhere.1", "s1.x"].map { |question| press(token, "1", "A", question: question).reason }
    expect(refused).to eq(([Roost::Operations::Keypads::WHICH] * 2) + ["This question can't be answered with a keypad.",
                                                                       Roost::Operations::Keypads::WHICH])
  end

  it "have all their points: the wall is their screen, and who is silent gave no answer" do
    round = Roost::Core::Lesson.new(title: "Round", slides: [slide("s1", prompt: game_choice(id: "p1"))],
                                    sections: [section("r", "game", %w[s1])])
    own = kept_session(account, round)
    token = keypads.knock(own.code, "Blue box").value
    keypads.answer_knock(account, own.id, Roost::Store::Receivers.new.by_token(token).id, allowed: true)
    %w[1 2].each { |number| keypads.event(token, { "keypad" => number, "range" => "in" }) }
    %w[begin next].each { |name| command(own, name) }
    press(token, "1", "A")
    command(own, "close")
    put_back(own, 4, :opened_at)
    outcomes = moment(own).seats.map { |seat| moment(own).outcome("s1", seat.id) }
    expect(outcomes.map { |outcome| [outcome.status, outcome.points] }).to eq([[:right, 100], [:blank, 0]])
  end

  it "have a number, and there is room for them as for others" do
    token = let_in(knock)
    expect(["", "a" * 9, "1;2"].map { |number| keypads.event(token, { "keypad" => number, "range" => "in" }).reason }.uniq)
      .to eq(["A keypad has a number of one to eight letters and digits."])
    command(session, "make_room", seats: "1")
    keypads.event(token, { "keypad" => "1", "range" => "in" })
    expect(keypads.event(token, { "keypad" => "2", "range" => "in" }).reason).to start_with("This lesson is full.")
  end

  it "stay out for a while when the teacher has taken their seat out" do
    token = let_in(knock)
    keypads.event(token, { "keypad" => "1", "range" => "in" })
    seat = seats_of(token)["1"][:id]
    Roost::Operations::RemoveSeat.new.call(account, session.id, seat)
    again = press(token, "1", "A")
    expect(again.reason).to start_with("Your teacher has removed you from this session.")
    expect(keypads.event(token, { "keypad" => "2", "range" => "in" })).to be_ok
    expect(moment(session).names.values).to eq(["Keypad 2"])
  end

  it "have one seat each, when two of their events come at once" do
    token = let_in(knock)
    faster = [-> { Roost::Operations::Keypads.new.event(token, { "keypad" => "7", "range" => "in" }) }]
    allow(Roost::Operations::JoinSession).to receive(:new).and_wrap_original do |make|
      faster.shift&.call
      make.call
    end
    expect(keypads.event(token, { "keypad" => "7", "battery" => "low" })).to be_ok
    expect(moment(session).names.values).to eq(["Keypad 7"])
  end

  it "are simulated alike by the same seed: registered, and answering one question after the other, also with yes and no" do
    heard = Array.new(2) do
      receiver = Keypads::Simulated.new(count: 12, seed: 4, students: %w[7K-1 7K-2])
      questions = [["s1.1", %w[A B C]], ["s2.1", %w[Y N]]]
      Array.new(60) do |turn|
        question, keys = questions[turn / 30]
        receiver.events({ "open" => true, "takes" => "letters", "question" => question, "keys" => keys })
      end.flatten.map(&:to_a)
    end
    expect(heard.first).to eq(heard.last)
    kinds = heard.first.group_by { |event| event[1] }
    expect(kinds.keys).to match_array(%i[range battery student answer])
    expect(kinds[:student].map { |event| event[2] }).to eq(%w[7K-1 7K-2])
    by_question = kinds[:answer].group_by { |event| event[3] }
    expect(by_question.transform_values { |all| [all.map(&:first).uniq.length, all.map { |event| event[2] }.uniq.sort] })
      .to eq({ "s1.1" => [12, %w[A B C]], "s2.1" => [12, %w[N Y]] })
  end
end
