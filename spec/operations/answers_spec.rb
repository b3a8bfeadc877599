# frozen_string_literal: true

RSpec.describe "Answering" do
  let(:session) { kept_session(teacher) }
  let(:seat) { take_seat(session).first }

  before do
    command(session, "begin")
    seat
  end

  def stored(slide_id) = moment(session).answer(slide_id, seat[:id])

  # As if the last question had been closed so many seconds ago.
  def closed_since(seconds)
    command(session, "close")
    put_back(session, seconds, :closed_at, slide: moment(session).state.slide_id)
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
      written = database[:answers].select_map(%i[seq received_at])
      save(session, seat, "s4", { "text" => ["By the stars"] }, save_id: id)
      expect(database[:answers].select_map(%i[seq received_at])).to eq(written) # nothing is written again
      expect(written.length).to eq(1)
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

  describe "what can't be read as an answer" do
    let(:session) do
      number = Roost::Core::Kinds::Number::Prompt.new(id: "p2", settings: { "value" => "300" })
      slides = [slide("w1", prompt: writing(id: "p1", word_limit: 5)), slide("n1", prompt: number), slide("z1")]
      kept_session(teacher, Roost::Core::Lesson.new(title: "Marsh", slides: slides))
    end
    let(:seven) { { "text" => ["they fly south when it freezes"] } }

    it "is kept as it was typed, stays when the teacher moves on, and earns nothing" do
      expect(save(session, seat, "w1", { "text" => ["one two three four five six seven"] }, final: false).to_h)
        .to include(state: "unread", message: /7 words; 5 is the most/)
      command(session, "next")
      expect(save(session, seat, "n1", { "number" => ["about 300"] }, save_no: 2).state).to eq("unread")
      command(session, "next")
      now = moment(session)
      expect(%w[w1 n1].map { |id| now.answer(id, seat[:id]).typed_text })
        .to eq(["one two three four five six seven", "about 300"])
      expect(%w[w1 n1].map { |id| now.outcome(id, seat[:id]).to_h.slice(:status, :mark, :unfinished) })
        .to eq([{ status: :unread, mark: nil, unfinished: true }, { status: :unread, mark: 0, unfinished: true }])
      results = Roost::Core::Analysis::Results.new(now.record)
      expect(Roost::Exchange::ResultsSheet.new(results).to_csv).to include("about 300", "one two three")
      command(session, "back")
      expect(Roost::Core::Session::Views.desk(moment(session)).entries.first.to_h).to include(typed: "about 300",
                                                                                              unfinished: true)
      expect(Roost::Core::Session::Views.seats(moment(session),
                                               [seat[:id]]).keys.first.own.typed).to eq({ "number" => ["about 300"] })
    end

    it "never takes the place of an answer that was handed in, and gives way to one that can be read" do
      save(session, seat, "w1", seven, final: false)
      expect(save(session, seat, "w1", { "text" => ["they fly south"] }, save_no: 2).state).to eq("final")
      expect(save(session, seat, "w1", seven, final: false, save_no: 3).state).to eq("refused")
      expect(stored("w1").to_h).to include(value: { "text" => "they fly south" }, typed: nil)
    end

    it "is bounded: ten thousand bytes of text in a few fields" do
      [{ "text" => ["word " * 3_000] }, { "text" => [[["x"]]] }, { "text" => ["a b c d e f"], **(1..50).to_h do |n|
        ["f#{n}", ["x"]]
      end }].each do |fields|
        expect(save(session, seat, "w1", fields, final: false).state).to eq("refused")
      end
      expect(save(session, seat, "n1", { "number" => ["3\u0000"] }, final: false).state).to eq("refused") # not open yet
    end

    it "tells a device what was understood, and what is missing from an empty hand-in" do
      expect(save(session, seat, "w1", { "text" => ["  "] }).to_h).to include(state: "empty", message: "Write something first.")
      expect(stored("w1").final).to be(false)
      command(session, "next")
      expect(save(session, seat, "n1",
                  { "number" => ["1,200"] }).to_h).to include(state: "final", understood: "Read as 1\u202F200")
      expect(save(session, seat, "n1", { "number" => ["3\u0000"] }, save_no: 2).to_h).to include(understood: "Read as 3")
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
      entry = Roost::Core::Session::Views.desk(moment(session)).entries.first
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
      other = take_seat(session, "Bo").first
      closed_since(30)
      expect(save(session, seat, "s3", { "options" => ["o1"] }, save_no: 2).state).to eq("refused")
      expect(save(session, other, "s3", { "options" => ["o1"] }).state).to eq("late")
      expect(moment(session).outcome("s3", other[:id]).points).to eq(0)
    end
  end

  it "takes nothing for a question from whoever came after it had closed" do
    command(session, "jump", slide: "s2")
    closed_since(30)
    expect(save(session, take_seat(session, "Bo").first, "s2", { "options" => ["o1"] }).state).to eq("refused")
  end

  it "is looked at in the attempt that is open, and what came before is kept" do
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name).first }
    command(session, "begin")
    command(session, "jump", slide: "s3")
    [ada, bo].each { |seat| save(session, seat, "s3", picked("o1")) }
    command(session, "again")
    save(session, ada, "s3", picked("o2"), attempt: 2)
    row = Roost::Store::Sessions.new.find(session.id)
    of_slide = Roost::Store::Records.new.at_slide(row, "s3")
    whole = Roost::Store::Records.new.whole(row)
    expect([of_slide, whole].map { |record| record.given("s3").transform_values { |each| each.value["options"] } })
      .to eq([{ ada[:id] => ["o2"] }] * 2)
    expect([ada, bo].map { |seat| whole.attempts("s3", seat[:id]).transform_values { |each| each.value["options"] } })
      .to eq([{ 1 => ["o1"], 2 => ["o2"] }, { 1 => ["o1"] }])
    expect([whole.outcome("s3", bo[:id], attempt: 1).status, whole.outcome("s3", bo[:id]).answer]).to eq([:right, nil])
    expect(whole.commands.map(&:name)).to eq(%w[begin jump again])
    expect(whole.commands.map(&:at)).to eq(whole.commands.map(&:at).sort)
  end

  it "counts nothing that comes after the room was told, blank or not, though it is open again" do
    command(session, "jump", slide: "s3")
    other = take_seat(session, "Bo").first
    save(session, seat, "s3", picked("o2"), final: false)
    closed_since(2)
    command(session, "show", what: "key")
    command(session, "open")
    expect([save(session, seat, "s3", picked("o1"), save_no: 2).state, save(session, other, "s3", picked("o1")).state])
      .to eq(%w[refused late])
    expect([seat, other].map { |each| moment(session).outcome("s3", each[:id]).status }).to eq(%i[wrong late])
    expect(Roost::Core::Session::Views.desk(moment(session)).gave.values.map(&:mark)).to eq([0, 0])
    expect(Roost::Core::Session::Views.desk(moment(session)).told).to be(true)
    command(session, "again")
    expect(save(session, other, "s3", picked("o1"), attempt: 2).state).to eq("final")
  end

  it "keeps every acknowledged answer when thirty seats answer at once" do
    command(session, "jump", slide: "s2")
    seats = Array.new(30) { |number| take_seat(session, "Student #{number}").first }
    replies = at_once(seats) { |each| save(session, each, "s2", { "options" => ["o1"] }) }
    expect(replies.map(&:state)).to all(eq("final"))
    expect(moment(session).tally("s2").rows.first.count).to eq(30)
  end

  it "hands in the drafts that came in time, and none that came late" do
    %w[s2 s3].each do |id|
      command(session, "jump", slide: id)
      save(session, seat, id, { "options" => ["o1"] }, final: false)
    end
    database[:answers].where(slide_id: "s3").update(late: true)
    Roost::Store::Answers.new.hand_in(seat[:id], %w[s2 s3], 1)
    expect(%w[s2 s3].map { |id| stored(id).final }).to eq([true, false])
  end

  it "reads only what changed since, and still sees every change" do
    command(session, "jump", slide: "s2")
    cache = Roost::Live::SessionCache.new(session.id)
    seats = Array.new(5) { |number| take_seat(session, "Student #{number}").first }
    counts = seats.map do |each|
      save(session, each, "s2", { "options" => ["o1"] })
      cache.moment.given("s2").length
    end
    expect(counts).to eq([1, 2, 3, 4, 5])
    save(session, seats.first, "s2", { "options" => ["o2"] }, save_no: 2)
    expect(cache.moment.tally("s2").rows.map(&:count)).to eq([4, 1])
  end
end
