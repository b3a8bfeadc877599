# frozen_string_literal: true

RSpec.describe "Correcting a question that has been answered" do
  let(:account) { teacher }

  def lesson(**settings)
    round = Array.new(3) { |place| "s#{place + 1}" }
    slides = round.map { |id| slide(id, prompt: choice(id: "p#{id}", keys: ["o1"], points: 90, **settings)) }
    Roost::Core::Lesson.new(title: "Marsh", slides: slides, sections: [section("round", "game", round)])
  end

  # Every seat picks by its own pattern, alike in every session.
  def played(lesson)
    session = kept_session(account, lesson)
    seats = %w[Ada Bo Cleo Dev].map { |name| take_seat(session, name).first }
    command(session, "begin")
    %w[s1 s2 s3].each_with_index do |id, place|
      command(session, "jump", slide: id)
      seats.each_with_index do |seat, number|
        save(session, seat, id, picked("o#{((number + place) % 4) + 1}")) unless number == place + 1
      end
      command(session, "close")
    end
    session
  end

  def correct(session, slide_id, form, in_lesson: false)
    Roost::Operations::CorrectQuestion.new.call(account, session.id, slide_id, form, in_lesson: in_lesson)
  end

  # What is told of each seat, by name: its marks, points, rank and totals.
  def told(session)
    moment = moment(session)
    ranks = moment.standings.to_h { |row| [row.name, [row.rank, row.points, row.gap, row.moved]] }
    Roost::Core::Analysis::Results.new(moment.record).lines.to_h do |line|
      [line.seat.name, [line.outcomes.values.map { |each| [each.status, each.mark, each.points] }, line.share, line.points,
                        ranks[line.seat.name]]]
    end
  end

  it "marks everything as if the key had been right from the start, during the session and after it" do
    [{ "keys" => ["o2"] }, { "keys" => %w[o3 o4] }, { "keys" => [] }, { "keys" => ["o1"], "points" => "500" }].each do |key|
      wanted = lesson.slide("s2").prompt.settings.merge(key, "points" => Integer(key.fetch("points", "90")))
      right = lesson.replacing(lesson.slide("s2").with(prompt: Roost::Core::Kinds::Choice::Prompt.new(id: "ps2",
                                                                                                      settings: wanted)))
      from_the_start = told(played(right))
      session = played(lesson)
      command(session, "end") if key["keys"].length == 2
      expect(correct(session, "s2", { "points" => "90" }.merge(key))).to be_ok
      expect(told(session)).to eq(from_the_start)
      expect(told(session)).not_to eq(told(played(lesson)))
    end
  end

  it "leaves what the form doesn't name as it was, the time limit too" do
    session = kept_session(account, lesson(time_limit: 20, explanation: "Because."))
    corrected = correct(session, "s1", { "keys" => ["o2"], "points" => "90" }).value.prompt
    expect(corrected.settings).to eq(lesson(time_limit: 20,
                                            explanation: "Because.").slide("s1").prompt.settings.merge("keys" => ["o2"]))
  end

  it "refuses what answers could not be read by any more, and changes nothing" do
    gaps = Roost::Core::Kinds::Gaps::Prompt.new(id: "g", settings: { "text" => "From [[north]] to [[south]]" })
    session = kept_session(account, Roost::Core::Lesson.new(title: "Gaps", slides: [slide("s1", prompt: gaps)]))
    reading = correct(session, "s1", { "text" => "From [[north]] to south" })
    expect(reading.reason).to start_with("Answers have been given to this question as it is.")
    expect(Roost::Store::Sessions.new.lesson(session.id).slide("s1").prompt).to eq(gaps)
    expect(correct(session, "s1", { "text" => "From [[north | the north]] to [[south]]" })).to be_ok
    expect(Roost::Store::Sessions.new.commands(session.id).last.name).to eq("correct")
  end

  it "corrects the lesson, too, while that still asks the same, and leaves it alone otherwise" do
    session = played(lesson)
    expect(correct(session, "s1", { "keys" => ["o4"] }, in_lesson: true).value.in_lesson).to be(true)
    lessons = Roost::Store::Lessons.new
    expect(lessons.slide(session.lesson_id, "s1").prompt.settings["keys"]).to eq(["o4"])
    Roost::Operations::ChangeLesson.new.call(account, session.lesson_id) { |now| Roost::Core::Reading.ok(now.without_slides(["s2"])) }
    expect(correct(session, "s2", { "keys" => ["o4"] }, in_lesson: true).value.in_lesson).to be(false)
    expect(moment(session).lesson.slide("s2").prompt.settings["keys"]).to eq(["o4"])
  end

  it "leaves the lesson alone where its question has other options by now" do
    session = played(lesson)
    changed = Roost::Operations::ChangeLesson.new.call(account, session.lesson_id) do |now|
      asked = now.slide("s1")
      options = asked.prompt.settings["options"].first(2)
      fewer = asked.prompt.class.new(id: asked.prompt.id,
                                     settings: asked.prompt.settings.merge("options" => options, "keys" => ["o1"]))
      Roost::Core::Reading.ok(now.replacing(asked.with(prompt: fewer)))
    end
    expect(changed).to be_ok
    expect(correct(session, "s1", { "keys" => ["o2"] }, in_lesson: true).value.in_lesson).to be(false)
    expect(Roost::Store::Lessons.new.slide(session.lesson_id, "s1").prompt.settings["keys"]).to eq(["o1"])
  end

  it "sets a question aside, so that it counts for nobody, and counts it again" do
    session = played(lesson)
    before = told(session)
    command(session, "end")
    2.times { expect(command(session, "put_aside", slide: "s2")).to be_ok }
    outcomes, share, points, = told(session)["Bo"]
    expect(outcomes).to eq([[:not_reached, nil, nil], [:set_aside, nil, nil], [:wrong, 0, 0]])
    expect([share, points]).to eq([0, 0])
    expect(moment(session).standings.map(&:points)).to eq([90, 90, 0, 0])
    command(session, "count_again", slide: "s2")
    expect(told(session)).to eq(before)
    expect(command(session, "put_aside", slide: "elsewhere").reason).to eq("That question hasn't been asked in this session.")
  end

  it "lets any of several right options count where one is chosen" do
    prompt = choice(keys: %w[o1 o3])
    expect(%w[o1 o2 o3].map { |id| prompt.mark(picked(id)) }).to eq([1, 0, 1])
    expect(choice(keys: %w[o1 o3], several: true).mark(picked("o1"))).to eq(0)
  end
end
