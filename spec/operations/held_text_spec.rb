# frozen_string_literal: true

RSpec.describe "What students write that doesn't belong on a wall" do
  let(:slides) do
    [slide("w", text: "The heron wades.", prompt: prompt("words", "most" => 3)),
     slide("c", prompt: prompt("posts", "approve" => false)),
     slide("g", prompt: prompt("gaps", "text" => "A great [[tit]] eats a [[worm]]."))]
  end
  let(:lesson) { Roost::Core::Lesson.new(title: "Marsh", slides: slides) }
  let(:session) { kept_session(teacher, lesson).tap { |row| command(row, "begin") } }
  let(:ada) { take_seat(session, "Ada").first }
  let(:bo) { take_seat(session, "Bo").first }

  def prompt(kind, settings) = Roost::Core::Kinds.named(kind).new(id: "p#{kind}", settings: settings)

  def write(id, fields, seat: ada, save_no: 1)
    command(session, "jump", slide: id)
    command(session, "open")
    expect(save(session, seat, id, fields, save_no: save_no).state).to eq("final")
  end

  def card(text, id = "p1") = { "id" => id, "text" => text, "at" => 1_700_000_000_000 }

  def cards(*cards) = { "posts" => [JSON.generate(cards)], "likes" => ["[]"], "writing" => [""] }

  def seen = moment(session).class_tally

  it "waits among words for the teacher, who lets a word through for all" do
    write("w", { "words" => %w[heron Arse] })
    write("w", { "words" => %w[arse] }, seat: bo)
    expect([seen.rows.map(&:text), seen.cloud.map(&:text), seen.held]).to eq([%w[heron], %w[heron], []])
    tally = moment(session).tally
    expect([tally.held.map { |row| [row.text.downcase, row.names] }, moment(session).slide.prompt.waiting(tally)])
      .to eq([[["arse", %w[Ada Bo]]], 1])
    command(session, "curate", slide: "w", what: "approve", cards: "arse")
    expect(seen.rows.map { |row| [row.text.downcase, row.count] }).to match_array([["heron", 1], ["arse", 2]])
  end

  it "waits among cards that need not wait, the end of a long one too, and again when it is written anew" do
    write("c", cards(card("A heron"), card("#{"reeds " * 40}you arsehole", "p2")))
    expect(seen.up.map(&:text)).to eq(["A heron"])
    waiting = moment(session).tally.waiting
    expect(waiting.map { |each| each.text[-8..] }).to eq(%w[arsehole])
    command(session, "curate", slide: "c", what: "approve", cards: waiting.first.stamp)
    expect(seen.up.length).to eq(2)
    write("c", cards(card("A heron"), card("Arseholes", "p2")), save_no: 2)
    expect(seen.up.map(&:text)).to eq(["A heron"])
  end

  it "is not among the fillings of gaps, unless it is right" do
    write("g", { "gap0" => ["tit"], "gap1" => ["arsehole"] })
    rows = seen.rows
    expect([rows.map(&:right), rows.map { |row| row.fillings.map(&:first) }, rows.map(&:wrong)])
      .to eq([[1, 0], [["tit"], [""]], [nil, nil]])
  end

  it "waits in any disguise, also where the lesson has other words of it" do
    write("w", { "words" => ["sh!t", "a$$hole", "f.u.c.k"] })
    expect(seen.rows).to eq([])
    write("w", { "words" => ["heron sh!t"] }, seat: bo)
    expect(seen.rows).to eq([])
  end

  it "is among the fillings once a corrected key takes it" do
    write("g", { "gap0" => ["x"], "gap1" => ["arse"] })
    expect(seen.rows.last.right).to eq(0)
    form = { "text" => "A great [[tit]] eats a [[worm|arse]]." }
    expect(Roost::Operations::CorrectQuestion.new.call(session.account_id, session.id, "g", form, in_lesson: false)).to be_ok
    expect([seen.rows.last.right, seen.rows.last.fillings.map(&:first)]).to eq([1, %w[arse]])
  end

  it "does not wait where the lesson itself has that word" do
    birds = Roost::Core::Lesson.new(title: "Tits", slides: [slide("w", text: "The great tit.", prompt: slides.first.prompt)])
    there = kept_session(session.account_id, birds).tap { |row| command(row, "begin") }
    command(there, "open")
    save(there, take_seat(there, "Cleo").first, "w", { "words" => ["Great tit", "tits"] })
    expect(moment(there).class_tally.rows.map(&:text)).to eq(["Great tit"])
  end
end
