# frozen_string_literal: true

RSpec.describe "Answering" do
  let(:session) { kept_session(teacher) }
  let(:seat) { take_seat(session).first }

  before do
    command(session, "begin")
    seat
  end

  def stored(slide_id) = snapshot(session).answer(slide_id, seat[:id])

  # As if the last question had been closed so many seconds ago.
  def closed_since(seconds)
    command(session, "close")
    state = database[:sessions].where(id: session.id).get(:state).to_h
    run = state["runs"][state["slide_id"]]
    run["closed_at"] -= seconds
    database[:sessions].where(id: session.id).update(state: Sequel.pg_jsonb(state))
  end

  describe "while a question is open" do
    before { command(session, "jump", slide: "s4") }

    it "keeps a draft, then what is handed in, as one answer" do
      expect(save(session, seat, "s4", { "text" => ["By the st"] }, final: false, save_no: 1).state).to eq("draft")
      expect(save(session, seat, "s4", { "text" => ["By the stars"] }, save_no: 2).state).to eq("final")
      expect(stored("s4").value).to eq({ "text" => "By the stars" })
      expect(database[:answers].count).to eq(1)
    end

    it "takes a repeated save for the same save" do
      id = SecureRandom.uuid
      replies = Array.new(3) { save(session, seat, "s4", { "text" => ["By the stars"] }, save_id: id) }
      expect(replies.map(&:state)).to eq(%w[final final final])
      expect(database[:answers].select_map(:seq).length).to eq(1)
    end

    it "tells a window that is behind how far the other is, and keeps the newer text" do
      save(session, seat, "s4", { "text" => ["newer"] }, save_no: 9)
      reply = save(session, seat, "s4", { "text" => ["older"] }, save_no: 3)
      expect([reply.state, reply.save_no]).to eq(["behind", 9])
      expect(stored("s4").value).to eq({ "text" => "newer" })
    end

    it "refuses foreign options, oversized text and nonsense, and changes nothing" do
      save(session, seat, "s4", { "text" => ["kept"] })
      bad = [message("s4", { "text" => ["x" * 2_000_000] }, save_no: 2), message("zz", {}, save_no: 2),
             message("s1", {}, save_no: 2), message("s4", { "text" => ["y"] }, save_no: "2"),
             message("s4", { "text" => ["y"] }, save_no: 2, save_id: "1"), "x", nil]
      replies = bad.map { |each| Roost::Operations::SaveAnswer.new.call(seat, marsh_lesson, each) }
      expect(replies.map(&:state)).to all(eq("refused"))
      expect(replies.map(&:message)).to all(be_a(String))
      expect(stored("s4").value).to eq({ "text" => "kept" })
    end

    it "lets an answer be changed, unless the session says otherwise" do
      save(session, seat, "s4", { "text" => ["one"] })
      expect(save(session, seat, "s4", { "text" => ["two"] }, save_no: 2).state).to eq("final")
      strict = kept_session(teacher(email: "rowe@heronsgate.example"), may_change: false)
      other = take_seat(strict).first
      command(strict, "begin")
      command(strict, "jump", slide: "s4")
      save(strict, other, "s4", { "text" => ["one"] })
      expect(save(strict, other, "s4", { "text" => ["two"] }, save_no: 2).message).to eq(Roost::Operations::SaveAnswer::SETTLED)
    end
  end

  it "refuses a question that was never open" do
    expect(save(session, seat, "s4", { "text" => ["early"] }).message).to eq(Roost::Operations::SaveAnswer::NEVER_OPEN)
  end

  describe "after answers have closed" do
    before { command(session, "jump", slide: "s4") }

    it "still counts what arrives within a second" do
      closed_since(0.4)
      expect(save(session, seat, "s4", { "text" => ["just"] }).state).to eq("final")
    end

    it "keeps what was written while the line was lost: late, and unfinished if it was" do
      closed_since(30)
      expect(save(session, seat, "s4", { "text" => ["They follow the"] }, final: false).state).to eq("late")
      entry = Roost::Core::Room::Views.desk(snapshot(session)).entries.first
      expect([entry.value, entry.unfinished, entry.late]).to eq([{ "text" => "They follow the" }, true, true])
    end

    it "lets late text complete a draft, and never replaces what was handed in" do
      save(session, seat, "s4", { "text" => ["They fol"] }, final: false)
      closed_since(30)
      expect(save(session, seat, "s4", { "text" => ["They follow the river"] }, final: false,
                                                                                save_no: 2).state).to eq("late")
      expect(stored("s4").value).to eq({ "text" => "They follow the river" })
      other = take_seat(session, "Bo").first
      command(session, "open")
      save(session, other, "s4", { "text" => ["mine"] })
      closed_since(30)
      expect(save(session, other, "s4", { "text" => ["changed"] }, save_no: 2).message).to eq(Roost::Operations::SaveAnswer::SETTLED)
    end

    it "does not let a late choice replace one that counts, and gives a late one 0" do
      command(session, "jump", slide: "s3")
      save(session, seat, "s3", { "options" => ["o2"] }, final: false)
      closed_since(30)
      expect(save(session, seat, "s3", { "options" => ["o1"] }, save_no: 2).state).to eq("refused")
      other = take_seat(session, "Bo").first
      expect(save(session, other, "s3", { "options" => ["o1"] }).state).to eq("late")
      expect(snapshot(session).outcome("s3", other[:id]).points).to eq(0)
    end
  end

  it "keeps every acknowledged answer when thirty seats answer at once" do
    command(session, "jump", slide: "s2")
    seats = Array.new(30) { |number| take_seat(session, "Student #{number}").first }
    replies = at_once(seats) { |each| save(session, each, "s2", { "options" => ["o1"] }) }
    expect(replies.map(&:state)).to all(eq("final"))
    expect(snapshot(session).tally("s2").rows.first.count).to eq(30)
  end

  it "reads only what changed since, and still sees every change" do
    command(session, "jump", slide: "s2")
    mirror = Roost::Live::Mirror.new(session.id)
    seats = Array.new(5) { |number| take_seat(session, "Student #{number}").first }
    counts = seats.map do |each|
      save(session, each, "s2", { "options" => ["o1"] })
      mirror.snapshot.given("s2").length
    end
    expect(counts).to eq([1, 2, 3, 4, 5])
    save(session, seats.first, "s2", { "options" => ["o2"] }, save_no: 2)
    expect(mirror.snapshot.tally("s2").rows.map(&:count)).to eq([4, 1])
  end
end
