# frozen_string_literal: true

RSpec.describe "A quiz the class comes to" do
  let(:lesson) do
    questions = [choice(id: "p1", keys: %w[o1]), choice(id: "p2", keys: %w[o2])]
    slides = [slide("s0"), slide("q1", heading: "One", prompt: questions[0]), slide("q2", heading: "Two", prompt: questions[1]),
              slide("s9"), slide("t1", prompt: choice(id: "p4"))]
    Roost::Core::Lesson.new(title: "Birds", slides: slides, sections: [section("quiz1", "quiz", %w[q1 q2], limit: 600),
                                                                       section("quiz2", "quiz", %w[t1])])
  end

  def after(state, name, now: 10.0, options: room_options, **arguments)
    Roost::Core::Session::Commands.call(lesson, options, state, name, arguments.transform_keys(&:to_s), now)
  end

  def at(*names, options: room_options)
    names.each_with_index.reduce(Roost::Core::Session::State.start) do |state, (name, at)|
      after(state, *name, now: at.to_f, options: options).value
    end
  end

  def places(state, *names) = names.map { |name| (state = after(state, name).value).slide_id }

  it "is come to by its card from both sides and passed as a whole; its slides are walked through from one of them" do
    expect(lesson.stops.map(&:id)).to eq(%w[s0 quiz1 q1 q2 s9 quiz2 t1])
    expect(places(at("begin"), "next", "next", "next", "back", "back", "back")).to eq(%w[quiz1 s9 quiz2 s9 quiz1 s0])
    inside = after(at("begin"), "jump", slide: "q1").value
    expect(places(inside, "next", "next")).to eq(%w[q2 s9])
    expect(places(inside, "back", "next")).to eq(%w[quiz1 s9])
    expect(after(at("begin", "next", "next", "next"), "next").reason).to eq("That was the last slide.")
  end

  it "opens with its slide or by the teacher, closes when she goes on, and then its questions were asked as long" do
    waiting = room_options(opens_itself: false)
    expect(at("begin", "next", options: waiting).open?).to be(false)
    state = at("begin", "next")
    expect([state.open?, state.opening("q1")]).to eq([true, nil])
    gone = after(state, "next", now: 200.0).value
    openings = %w[quiz1 q1 q2].map { |id| gone.opening(id) }
    expect(openings.map { |each| [each.opened_at, each.closed_at] }).to all(eq([1.0, 200.0]))
    back = after(gone, "back", now: 300.0).value
    expect(back.open?).to be(false)
    again = after(after(back, "open", now: 310.0).value, "close", now: 400.0).value
    expect(again.opening("q1").closed_at).to eq(400.0)
    expect(after(state, "end", now: 50.0).value.opening("q2").closed_at).to eq(50.0)
  end

  it "gives more time to all or to one, and closes at a time for all; anything of one question is refused" do
    state = at("begin", "next")
    one = after(after(state, "more_time", seconds: "60").value, "more_time", seconds: "300", seat: "7").value
    expect(one.time_given).to eq("quiz1" => { "all" => 60, "7" => 300 })
    expect(Roost::Core::Session::State.from_document(JSON.parse(JSON.generate(one.to_document)), one.facts)).to eq(one)
    closing = after(state, "add_time", seconds: "60").value
    expect([closing.opening.deadline, after(closing, "expire", now: 72.0).value.open?]).to eq([70.0, false])
    refusals = [after(state, "more_time", seconds: "9999"), after(at("begin"), "more_time", seconds: "60"),
                after(at("begin", "next", "next", "next"), "more_time", seconds: "60"), after(state, "again"),
                after(state, "show", what: "results"), after(state, "spotlight", seat: "3")]
    expect(refusals.map(&:reason)).to all(be_a(String))
  end

  it "lets cards of its boards through while it is open, and not before" do
    board = Roost::Core::Kinds::Posts::Prompt.new(id: "p7", settings: {})
    slides = [slide("s0"), slide("b1", prompt: board)]
    boarded = Roost::Core::Lesson.new(title: "Birds", slides: slides, sections: [section("quiz1", "quiz", %w[b1])])
    allow(self).to receive(:lesson).and_return(boarded)
    curate = ->(state) { after(state, "curate", slide: "b1", what: "approve", cards: "3-p1-abc") }
    expect(curate.call(at("begin")).reason).to eq("That question hasn't been asked in this session.")
    expect(curate.call(at("begin", "next")).value.curation("b1").approved).to eq(%w[3-p1-abc])
  end

  it "stands for itself in what devices get: no question of it before it is gone through" do
    state = at("begin", "next")
    about = { id: 1, title: "Birds", lesson: lesson, options: room_options, seats: [] }
    moment = moment_of(**about, state: state, answers: {}, shown: {})
    view = Roost::Core::Session::Views.screen(moment)
    expect([view.slide.heading, view.slide.text, view.slide.prompt]).to eq(["Quiz", "2 questions, each at your own speed.", nil])
    expect([view.quiz.stage, view.quiz.asked, view.quiz.limit]).to eq([:open, 2, 600])
    expect(Roost::Core::Session::Views.desk(moment).sheet.map { |place| [place.slide.id, place.number] })
      .to eq([["s0", 1], ["quiz1", nil], ["q1", 2], ["q2", 3], ["s9", 4], ["quiz2", nil], ["t1", 5]])
  end

  it "has rules that are read from a form, kept in the lesson, and gone from no other way of running it" do
    read = ->(**form) { Roost::Core::Section.read_rules(form.transform_keys(&:to_s)) }
    rules = read.call(limit: "10", draw: "", feedback: "right", going_back: "1").value
    expect(rules).to include("limit" => 600, "draw" => nil, "feedback" => "right", "going_back" => true, "must_answer" => false)
    expect([read.call(limit: "0"), read.call(limit: "9e9"), read.call(draw: "none")].map(&:ok?)).to all(be(false))
    changed = [{ rules: rules }, { way: "game" }, { way: "quiz" }].reduce(lesson) do |so_far, change|
      so_far.section_changed("quiz1", **change)
    end
    kept = Roost::Core::Lesson.from_document(JSON.parse(JSON.generate(changed.to_document)))
    expect(kept.quiz("quiz1").rules).to eq(rules)
    expect(kept.quiz("quiz2").quiz_rules).to eq(Roost::Core::Session::Sitting::RULES)
  end
end
