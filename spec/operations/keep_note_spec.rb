# frozen_string_literal: true

RSpec.describe Roost::Operations::KeepNote do
  let(:session) { kept_session(teacher).tap { |row| command(row, "begin") } }
  let(:seat) { take_seat(session, "Ada").first }
  let(:sessions) { Roost::Store::Sessions.new }

  def id(number) = format("%08d-0000-0000-0000-000000000000", number)

  def note(text, save_no: 1, save: save_no, writer: 100, over: [], slide: "s1")
    { "slide" => slide, "fields" => { "text" => [text] }, "save_no" => save_no, "save_id" => id(save), "writer" => id(writer),
      "over" => over.map { |each| id(each) } }
  end

  def keep(message) = described_class.new.call(seat, sessions.find(session.id), message)

  def standing = Roost::Store::Notes.new.of_seat(seat[:id]).transform_values(&:text)

  it "keeps the newest of a window, once however often it is sent, and the older ones no more" do
    sent = [note("Her"), note("Herons", save_no: 2), note("Herons", save_no: 2), note("He", save_no: 1, save: 9)]
    states = sent.map { |message| keep(message).to_h.slice(:state, :save_no) }
    expect(states).to eq([{ state: "draft", save_no: 1 }, { state: "draft", save_no: 2 }, { state: "draft", save_no: 2 },
                          { state: "behind", save_no: 2 }])
    expect(standing).to eq({ "s1" => "Herons" })
  end

  it "replaces what another window wrote only where that was known" do
    keep(note("Herons"))
    reply = keep(note("Swallows", save_no: 5, writer: 200))
    expect([reply.state, reply.saved, standing]).to eq(["elsewhere", id(1), { "s1" => "Herons" }])
    expect(keep(note("Both", save_no: 6, writer: 200, over: [1])).state).to eq("draft")
    expect(standing).to eq({ "s1" => "Both" })
  end

  it "is kept by attempt, and an attempt begins with what was noted in the one before" do
    command(session, "jump", slide: "s2")
    keep(note("Herons", slide: "s2"))
    again = note("Herons and storks", slide: "s2", save: 2).merge("attempt" => 2)
    expect(keep(again).message).to eq(described_class::NO_SLIDE)
    command(session, "again")
    expect([standing, keep(again).state, standing]).to eq([{ "s2" => "Herons" }, "draft", { "s2" => "Herons and storks" }])
    keep(note("Herons only", slide: "s2", save_no: 3))
    earlier = Roost::Store::Notes.new.find(seat[:id], "s2", 1).text
    expect([standing, earlier]).to eq([{ "s2" => "Herons and storks" }, "Herons only"])
  end

  it "refuses in a sentence what is no note, or comes when the lesson has been over for an hour" do
    bad = [nil, [], {}, note("x").merge("save_no" => "1"), note("x", slide: "s99"), note("x" * 4_001), note("\xFF"),
           note("x").merge("fields" => 7)]
    expect(bad.map { |message| keep(message).state }).to eq([*["refused"] * 7, "draft"])
    expect(standing).to eq({ "s1" => "" })
    expect(keep(note("x" * 4_001)).message).to eq("A note is too long: 4 000 characters is the most.")
    command(session, "end")
    expect(keep(note("Late", save_no: 2)).state).to eq("draft")
    database[:sessions].update(ended_at: Sequel.lit("clock_timestamp() - interval '61 minutes'"))
    expect([keep(note("Later", save_no: 3)).state, standing]).to eq(["refused", { "s1" => "Late" }])
  end
end
