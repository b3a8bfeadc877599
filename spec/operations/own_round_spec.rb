# frozen_string_literal: true

RSpec.describe Roost::Operations::OwnRound do
  let(:account) { teacher }
  let(:lesson) do
    asked = Array.new(3) { |at| slide("q#{at}", heading: "Q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1], time_limit: 20)) }
    Roost::Core::Lesson.new(title: "Birds", slides: asked, sections: [section("round", "game", %w[q0 q1])])
  end
  let(:lesson_id) { kept_lesson(account, lesson) }
  let(:kestrel) { Roost::Operations::KeepClass.new.create(account, { "name" => "Year 7 Kestrel" }).value }

  def hours(from_now) = (Time.now.utc + (from_now * 3600)).strftime("%Y-%m-%dT%H:%M")

  def assigned(**more)
    form = { opens_at: hours(-3), closes_at: hours(3), entry: "free", going_back: "1", feedback: "right", attempts: "" }
    Roost::Operations::AssignLesson.new.call(account, lesson_id, form.merge(more).transform_keys(&:to_s)).value
  end

  def seated(row, name, student_id: nil)
    id, = Roost::Store::Seats.new.create(row.id, name, student_id: student_id)
    { id: id, session_id: row.id }
  end

  # Goes through it, or through the first of its questions.
  # @return [Roost::Core::Game::Comparison, nil]
  def play(row, seat, *picks, attempt: 1)
    taken = Roost::Operations::TakeSitting.new.call(seat, row, begins: true)
    picks.each_with_index do |pick, at|
      Roost::Store::Answers.new.save(session_id: row.id, seat_id: seat[:id], slide_id: "q#{at}", value: picked(pick), save_no: 1,
                                     attempt: attempt, final: true, keyed: true, save_id: SecureRandom.uuid)
    end
    told = picks.each_with_index.to_h { |pick, at| [taken.lesson.slide("q#{at}"), pick == "o1" ? 1r : 0r] }
    described_class.new.call(seat, row, taken, told)
  end

  def hand_in(row, seat)
    taken = Roost::Operations::TakeSitting.new.call(seat, row)
    Roost::Operations::HandInSitting.new.call(seat, taken)
  end

  it "is against the last attempt in the same session, with the best of all" do
    row = assigned
    seat = seated(row, "Ada")
    expect(play(row, seat, "o1", "o1").then { |round| [round.points, round.against] }).to eq([200, nil])
    hand_in(row, seat)
    second = play(row, seat, "o2", attempt: 2)
    expect([second.points, second.against, second.difference, second.best]).to eq([0, :yourself, -100, 200])
  end

  it "is against the same student's time in an earlier session of the lesson, told or ended, and nobody else's" do
    names = [[1, { name: "Ada" }], [2, { name: "Bo" }]]
    Roost::Operations::FillClass.new.fill(account, kestrel, Roost::Core::ClassList.read(names).value)
    ada, bo = Roost::Store::Students.new.of_class(kestrel).map(&:id)
    form = { "class_id" => kestrel.to_s, "entry" => "free", "opens_itself" => "1" }
    live = Roost::Operations::StartSession.new.call(account, lesson_id, form).value
    live_seat = seated(live, "Ada", student_id: ada)
    %w[begin next].each { |name| command(live, name) }
    save(live, live_seat, "q0", { "options" => ["o2"] })
    row = assigned
    expect(play(row, seated(row, "Ada", student_id: ada), "o1").against).to be_nil
    command(live, "end")
    again = assigned
    round = play(again, seated(again, "Ada", student_id: ada), "o1", "o1")
    expect([round.against, round.steps.map { |step| [step.slide.id, step.before] }]).to eq([:yourself, [["q0", 0]]])
    expect(play(again, seated(again, "Bo", student_id: bo), "o1").against).to be_nil
  end

  it "is against the median of at least three others who answered" do
    row = assigned
    described_class.medians.clear
    others = %w[o1 o1 o2].each_with_index.map { |pick, at| seated(row, "S#{at}").tap { |seat| play(row, seat, pick) } }
    described_class.medians.clear # that of a moment ago would do
    round = play(row, seated(row, "Ada"), "o2")
    expect([round.against, round.steps.first.before, round.difference]).to eq([:class, 100, -100])
    expect(play(row, others.first, "o1").steps.first.before).to eq(0)
  end

  it "is nothing where no round is played" do
    lesson = Roost::Core::Lesson.new(title: "Birds", slides: [slide("q0", prompt: choice(keys: %w[o1]))])
    id = kept_lesson(account, lesson)
    row = Roost::Operations::AssignLesson.new.call(account, id, { "opens_at" => hours(-1), "closes_at" => hours(1) }).value
    expect(play(row, seated(row, "Ada"), "o1")).to be_nil
  end
end
