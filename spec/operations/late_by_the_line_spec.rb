# frozen_string_literal: true

RSpec.describe "An answer that comes late" do
  let(:session) { kept_session(teacher) }
  let(:seat) { take_seat(session).first }
  let(:right) { { "options" => ["o1"] } }

  def ago(seconds) = Sequel.lit("clock_timestamp() - make_interval(secs => ?)", seconds)

  # A timed question of 20 s that the seat got when it was opened, and that ended so many seconds ago.
  def ended(seconds)
    command(session, "begin")
    command(session, "jump", slide: "s3")
    database[:openings].where(session_id: session.id, slide_id: "s3")
                       .update(opened_at: ago(20 + seconds), deadline: ago(seconds), closed_at: nil)
    Roost::Store::Deliveries.new.note(session.id, "s3", [seat[:id]])
    database[:seats].update(joined_at: ago(60))
    database[:deliveries].update(sent_at: ago(20 + seconds))
  end

  def line(**known) = database[:seats].where(id: seat[:id]).update(known)

  def save_late(elapsed: 3000, tries: 3, **more) = save(session, seat, "s3", right, elapsed: elapsed, tries: tries, **more)

  def stored = moment(session).answer("s3", seat[:id])

  it "counts as at the deadline where the device was out of reach, and says so at the Desk and in the results" do
    ended(6)
    line(heard_at: ago(10), asked_at: ago(8), round_trip: 0.3)
    expect(save_late.state).to eq("final")
    expect([stored.late, stored.by_line]).to eq([false, true])
    outcome = moment(session).outcome("s3", seat[:id])
    expect([outcome.mark, outcome.points, moment(session).record.seconds("s3")]).to eq([1, 75, { seat[:id] => 25.3 }])
    expect(Roost::Core::Session::Views.desk(moment(session)).entries.first.by_line).to be(true)
    results = Roost::Core::Analysis::Results.new(moment(session).record)
    expect(Roost::Exchange::ResultsSheet.new(results).to_csv).to include("by the line, counts")
  end

  it "is late where the line was good, whatever the device says", :aggregate_failures do
    ended(6)
    line(heard_at: ago(2), round_trip: 0.3)
    expect(save_late.state).to eq("late")
    expect([stored.late, stored.by_line]).to eq([true, false])
  end

  it "is late where the device says nothing, or that time was over" do
    ended(6)
    line(heard_at: ago(10), asked_at: ago(8), round_trip: 0.3)
    expect(save(session, seat, "s3", right, final: false).state).to eq("late")
    expect(save_late(elapsed: 21_000, save_no: 2).state).to eq("late")
  end

  it "replaces the draft that came before the line was lost" do
    ended(6)
    line(heard_at: ago(10), asked_at: ago(8), round_trip: 0.3)
    database[:answers].insert(session_id: session.id, seat_id: seat[:id], slide_id: "s3", final: false, late: false, save_no: 1,
                              value: Sequel.pg_jsonb(picked("o2")), save_id: SecureRandom.uuid, received_at: ago(9))
    expect(save_late(save_no: 2).state).to eq("final")
    expect(stored.value).to eq(right)
  end

  it "is taken in time as ever, with nothing to excuse" do
    command(session, "begin")
    command(session, "jump", slide: "s3")
    expect(save_late(tries: 1).state).to eq("final")
    expect([stored.late, stored.by_line]).to eq([false, false])
  end

  describe "when the device answers heartbeats" do
    let(:seats) { Roost::Store::Seats.new }

    def known = database[:seats].where(id: seat[:id]).first

    it "notes the round trip, and no bad line, of a prompt answer" do
      seats.arrive(seat[:id], "key")
      seats.asked(["key"])
      seats.heard([seat[:id]])
      expect(known).to include(asked_at: nil, bad_from: nil)
      expect(known[:round_trip]).to be_between(0, 1)
    end

    it "notes since when the line was bad of one that is not prompt" do
      line(heard_at: ago(12), asked_at: ago(7))
      seats.heard([seat[:id]])
      expect(known[:bad_until] - known[:bad_from]).to be_within(0.5).of(12)
      expect(known[:round_trip]).to be_within(0.5).of(7)
    end

    it "counts the oldest that has no answer, and a stream that is gone" do
      seats.arrive(seat[:id], "key")
      line(asked_at: ago(9))
      seats.asked(["key"])
      expect(Time.now - known[:asked_at]).to be > 8
      line(asked_at: nil)
      seats.leave(["key"])
      expect(known[:asked_at]).not_to be_nil
      line(asked_at: nil)
      seats.heard([seat[:id]])
      expect(known[:heard_at]).to be_nil
    end
  end
end
