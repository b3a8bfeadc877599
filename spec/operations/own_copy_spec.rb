# frozen_string_literal: true

RSpec.describe "A student's own copy" do
  let(:lesson) do
    asked = ->(id, topic) { choice(id: id, keys: %w[o1], explanation: "They eat insects.", subtopics: [topic]) }
    slides = [slide("s0", heading: "Look"), *%w[q1 q2 q3].map { |id| slide(id, heading: id, prompt: asked.call(id, "food")) },
              slide("q4", heading: "q4", prompt: asked.call("q4", "flight"))]
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:session) { kept_session(teacher, lesson, own_copy: true) }
  let(:seat) { take_seat(session).first }
  let(:copy) { ->(row = session) { Roost::Operations::OwnCopy.new.call(Roost::Store::Sessions.new.find(row.id), seat[:id]) } }

  def ask(*options)
    command(session, "begin")
    options.each_with_index do |option, at|
      command(session, "jump", slide: "q#{at + 1}")
      Roost::Operations::VisitSeat.new.call(seat, Roost::Store::Sessions.new.find(session.id))
      save(session, seat, "q#{at + 1}", picked(option))
    end
  end

  it "has what they got and gave, once the session is over, as long as the teacher allows" do
    ask("o1", "o2")
    expect(copy.call).to be_nil
    command(session, "end")
    pages = copy.call.pages.map { |page| [page.slide.id, page.outcome&.status] }
    expect(pages).to eq([["s0", nil], ["q1", :right], ["q2", :wrong]])
    expect([copy.call.share, copy.call.pages.last.slide.prompt.right_in_words]).to eq([1/2r, "Grey heron"])
    other = teacher(email: "moss@heronsgate.example")
    expect(Roost::Operations::AllowCopies.new.call(other, session.id, false)).to eq(0)
    Roost::Operations::AllowCopies.new.call(session.account_id, session.id, false)
    expect(copy.call).to be_nil
  end

  it "says by which steps a mark came about, and of the key no more than was told" do
    partial = lesson.slide("q1").prompt.with_settings("keys" => %w[o1 o2], "several" => true, "partial" => true)
    slides = lesson.slides.map { |each| each.id == "q1" ? each.with(prompt: partial) : each }
    held = kept_session(session.account_id, lesson.with(slides: slides), own_copy: true)
    own = take_seat(held).first
    command(held, "begin")
    command(held, "jump", slide: "q1")
    save(held, own, "q1", picked("o1", "o3"))
    command(held, "end")
    put_back(held, 5, :closed_at)
    row = Roost::Store::Sessions.new.find(held.id)
    names = lambda do |level|
      copy = Roost::Operations::OwnCopy.new
      allow(copy).to receive(:level).and_return(level)
      copy.call(row, own[:id]).pages.find { |page| page.slide.id == "q1" }.steps.map(&:name)
    end
    expect(%i[nothing outcome key].map(&names)).to eq([[], [:by_key], %i[hits_less_wrong by_key]])
  end

  it "is not of sessions of before there were copies" do
    expect(Roost::Core::Session::Options.from_document({ "opens_itself" => true }).own_copy).to be(false)
    expect(Roost::Core::Session::Options.read({ "own_copy" => "1" }).own_copy).to be(true)
  end

  it "sums up for the student's page what they know, where there is enough to say so" do
    named = { name: "Cleo Okafor", shown_name: "Cleo" }
    person = Roost::Store::Students.new.create(session.account_id, [named]).first
    Roost::Store::Seats.new.belong(seat[:id], student_id: person, team_id: nil)
    ask("o1", "o1", "o2", "o1")
    results = -> { Roost::Operations::OwnResults.new.call(Struct.new(:id).new(person)) }
    expect(results.call.past).to eq([])
    command(session, "end")
    expect(results.call.topics.map(&:to_a)).to eq([["food", 2/3r, 3, nil, 2/3r]])
    expect(results.call.past.map { |past| [past.right, past.marked, past.copy, past.points] }).to eq([[3, 4, true, nil]])
  end

  it "says how a topic grew since earlier lessons" do
    topic = Roost::Operations::OwnResults::Topic.of("food", [[1r, 1/2r], [0r, 1/2r], [1/2r]])
    expect([topic.lately, topic.before, topic.share, topic.many, topic.growing?]).to eq([3/4r, 1/3r, 1/2r, 5, true])
  end

  it "has what the teacher wrote about an answer, which nobody else's account can write or take back" do
    ask("o1", "o2")
    write = ->(account, text, at: seat[:id]) { Roost::Operations::CommentAnswer.new.call(account, session.id, at, "q2", text) }
    other = teacher(email: "moss@heronsgate.example")
    stranger = take_seat(kept_session(other, lesson)).first
    expect([write.call(other, "Mine"), write.call(session.account_id, "No", at: stranger[:id])]).to eq([nil, nil])
    expect(write.call(session.account_id, "x" * 1_001).reason).to start_with("A comment is too long")
    write.call(session.account_id, "Look at its beak again.")
    expect(copy.call).to be_nil
    command(session, "end")
    expect(copy.call.pages.map(&:comment)).to eq(["", "", "Look at its beak again."])
    person = Roost::Store::Students.new.create(session.account_id, [{ name: "Cleo Okafor", shown_name: "Cleo" }]).first
    Roost::Store::Seats.new.belong(seat[:id], student_id: person, team_id: nil)
    own = Roost::Operations::OwnResults.new.call(Struct.new(:id).new(person)).comments
    expect(own.map { |comment| [comment.row.id, comment.slide.id, comment.text] })
      .to eq([[session.id, "q2", "Look at its beak again."]])
    write.call(session.account_id, "")
    expect(Roost::Store::Comments.new.of([seat[:id]])).to eq({})
  end
end
