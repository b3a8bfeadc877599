# frozen_string_literal: true

RSpec.describe "An assignment" do
  let(:account) { teacher }
  let(:kestrel) { Roost::Operations::KeepClass.new.create(account, { "name" => "Year 7 Kestrel" }).value }
  let(:passes) { Roost::Operations::StudentPasses.new.of_class(account, kestrel).to_h { |student, pass| [student.shown_name, pass] } }
  let(:lesson) do
    slides = [slide("s0")] + Array.new(3) { |at| slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1])) }
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:school) { Roost::Operations::SchoolClock.here }

  before do
    rows = ["Ada Lindqvist", "Bo Marsh"].each_with_index.map { |name, place| [place + 1, { name: name }] }
    Roost::Operations::FillClass.new.fill(account, kestrel, Roost::Core::ClassList.read(rows).value)
  end

  # @param opens, closes [Numeric] hours from now
  def assign(lesson = self.lesson, opens: -1, closes: 24, **form)
    now = Roost::Store::Sessions.new.now
    times = { opens_at: school.field(now + (opens * 3600)), closes_at: school.field(now + (closes * 3600)) }
    form = { class_id: kestrel.to_s, entry: "pass", going_back: "1", **times, **form }.transform_keys(&:to_s)
    Roost::Operations::AssignLesson.new.call(account, kept_lesson(account, lesson), form).value
  end

  def again(row) = Roost::Store::Sessions.new.find(row.id)

  def seat_of(row, name = "Ada")
    token = Roost::Operations::EnterByPass.new.call(passes[name], row.id)
    token.ok? ? Roost::Store::Seats.new.by_token(token.value) : token
  end

  def take(row, seat, **how) = Roost::Operations::TakeSitting.new.call(seat, again(row), **how)

  def work(row, seat, answers, attempt: 1)
    taken = take(row, seat, begins: true)
    answers.each { |id, option| save(row, seat, id, picked(option), final: false, attempt: attempt) }
    Roost::Operations::HandInSitting.new.call(seat, taken)
  end

  def allow(row, seat, form, by: account)
    Roost::Operations::AllowMore.new.call(by, row.id, { seat_id: seat[:id] }, form)
  end

  def progress(row) = Roost::Operations::FollowAssignment.new.call(again(row)).rows.to_h { |each| [each.name, each] }

  # Puts all of an assignment's times back.
  def pass_by(row, seconds)
    back = ->(column) { Sequel.lit("#{column} - make_interval(secs => ?)", seconds) }
    { assignments: %i[opens_at closes_at], openings: %i[opened_at deadline], sittings: %i[started_at window_ends_at] }
      .each { |table, columns| database[table].where(session_id: row.id).update(columns.to_h { |each| [each, back.call(each)] }) }
  end

  # Changes when and how it goes.
  def change(row, form)
    now = Roost::Store::Assignments.new.find(row.id)
    kept = { "opens_at" => school.field(now.opens_at), "closes_at" => school.field(now.closes_at), "feedback" => "end",
             "attempts" => "1", "going_back" => "1" }
    Roost::Operations::ChangeAssignment.new.call(account, row.id, "change", kept.merge(form))
  end

  it "is on the student's page till it is done, and the teacher sees who is how far" do
    row = assign
    student = Roost::Operations::EnterByPass.student(passes["Ada"]).value
    stage = -> { Roost::Operations::OwnTasks.new.call(student).map(&:stage) }
    expect(stage.call).to eq([:to_do])
    seat = seat_of(row)
    expect([take(row, seat).kept, stage.call]).to eq([nil, [:to_do]])
    take(row, seat, begins: true)
    save(row, seat, "q0", picked("o1"), final: false)
    expect([stage.call, *progress(row).values.map(&:stage)]).to eq([[:begun], :at_work, :not_opened])
    take(row, seat, to: 4)
    work(row, seat, { "q1" => "o2" })
    expect(stage.call).to eq([:done])
    ada = progress(row)["Ada Lindqvist"]
    expect([ada.stage, ada.answered, ada.asked, ada.share, ada.late]).to eq([:done, 2, 3, 1/3r, false])
  end

  it "lets nothing in by itself: before it opens, without having begun, or after it was handed in" do
    row = assign(opens: 2)
    seat = seat_of(row)
    expect([take(row, seat, begins: true).kept, save(row, seat, "q0", picked("o1")).state]).to eq([nil, "refused"])
    pass_by(row, 3 * 3600)
    expect(save(row, seat, "q0", picked("o1")).state).to eq("refused")
    work(row, seat, { "q0" => "o1" })
    expect(save(row, seat, "q1", picked("o1")).state).to eq("late")
    expect(command(row, "next").reason).to include("This is an assignment")
  end

  it "opens its questions to who is at work in it, as for pictures and pairs, and to nobody else" do
    row = assign
    seat = seat_of(row)
    open = -> { Roost::Operations::OpenToSeat.slides(seat, again(row)).map(&:id) }
    expect(open.call).to eq([])
    asked = take(row, seat, begins: true).task.asked
    expect(open.call).to match_array(asked)
    Roost::Operations::HandInSitting.new.call(seat, take(row, seat))
    expect(open.call).to eq([])
  end

  it "ends by itself: drafts count, what comes later is late, and how it went is told from then on" do
    row = assign
    seat = seat_of(row)
    take(row, seat, begins: true)
    save(row, seat, "q0", picked("o1"), final: false)
    expect(Roost::Operations::CloseSessions.new.call).to eq([])
    pass_by(row, 24.5 * 3600)
    expect(save(row, seat, "q1", picked("o1"), final: false).state).to eq("late")
    expect(Roost::Operations::CloseSessions.new.call).to eq([row.id])
    record = Roost::Store::Records.new.of(again(row))
    expect(%w[q0 q1 q2].map { |id| record.outcome(id, seat[:id]).status }).to eq(%i[right late not_reached])
    own = Roost::Operations::OwnTasks.new.call(Roost::Operations::EnterByPass.student(passes["Ada"]).value).first
    expect([own.stage, own.told]).to eq([:over, 1])
    expect(seat_of(row, "Bo").reason).to eq(Roost::Operations::JoinSession::ENDED)
  end

  it "goes on for one alone: longer, once more, after the end too, and for who never came" do
    row = assign
    ada = seat_of(row)
    work(row, ada, { "q0" => "o2" })
    Roost::Operations::ChangeAssignment.new.call(account, row.id, "close")
    expect([again(row).ended_at.nil?, take(row, ada).task.open]).to eq([false, false])
    later = { "way" => "until", "closes_at" => school.field(Roost::Store::Sessions.new.now + 7200) }
    who = Roost::Store::Students.new.of_class(kestrel).find { |student| student.shown_name == "Bo" }
    expect(Roost::Operations::AllowMore.new.call(account, row.id, { student_id: who.id }, later)).to be_ok
    bo = seat_of(row, "Bo")
    work(row, bo, { "q0" => "o1" })
    expect(progress(row).transform_values(&:stage)).to eq("Ada Lindqvist" => :done, "Bo Marsh" => :done)
    expect(take(row, ada).task.open).to be(false)
    allow(row, ada, later)
    expect(save(row, ada, "q0", picked("o1"), save_no: 2).state).to eq("final")
    past = later.merge("closes_at" => "2020-01-01T08:00")
    expect(allow(row, ada, past).reason).to eq(Roost::Operations::AllowMore::PAST)
    expect(allow(row, ada, later, by: teacher(email: "moss@heronsgate.example"))).to be_nil
  end

  it "is done as often as it may be, and what counts is looked back on" do
    row = assign(attempts: "2", counts: "best")
    seat = seat_of(row)
    work(row, seat, { "q0" => "o1", "q1" => "o1" })
    expect(take(row, seat).task.another?(1)).to be(true)
    work(row, seat, { "q0" => "o2" }, attempt: 2)
    expect([take(row, seat, begins: true).sitting.attempt, progress(row)["Ada Lindqvist"].share]).to eq([2, 2/3r])
    allow(row, seat, { "way" => "attempt" })
    expect(take(row, seat, begins: true).sitting.attempt).to eq(3)
  end

  it "shows of two attempts the sketch of the one that counts, and keeps what was written about each" do
    drawing = Roost::Core::Lesson.new(title: "Wings", slides: [slide("q9", prompt: sketch(id: "p9"))])
    row = assign(drawing, attempts: "2", counts: "first", feedback: "right")
    seat = seat_of(row)
    stroke = { "tool" => "text", "colour" => "rust", "points" => [1, 2] }
    strokes = ->(word) { { "strokes" => [JSON.generate([{ **stroke, "text" => word }])] } }
    drawn = %w[wing nest].each.with_index(1) do |word, attempt|
      taken = take(row, seat, begins: true)
      save(row, seat, "q9", strokes.call(word), final: false, attempt: attempt)
      Roost::Operations::HandInSitting.new.call(seat, taken)
    end
    expect(drawn.length).to eq(2)
    expect(Roost::Operations::ValueGiven.new.call(again(row), "q9", seat[:id]).to_s).to match(/wing/)
    write = ->(attempt, text) { Roost::Operations::CommentAnswer.new.call(account, row.id, seat[:id], "q9", text, attempt: attempt) }
    expect([write.call(1, "A fine wing."), write.call(2, "And a nest."), write.call(3, "None")].map { |said| said&.value })
      .to eq(["A fine wing.", "And a nest.", nil])
    page = Roost::Operations::OwnCopy.new.call(again(row), seat[:id]).pages.find { |each| each.slide.id == "q9" }
    expect([page.outcome.answer.attempt, page.comment]).to eq([1, "A fine wing.\nOn attempt 2: And a nest."])
  end

  it "is taken back from the students' pages, kept in the records, and given again" do
    row = assign
    seat = seat_of(row)
    work(row, seat, { "q0" => "o1" })
    change = ->(way) { Roost::Operations::ChangeAssignment.new.call(account, row.id, way) }
    student = Roost::Operations::EnterByPass.student(passes["Ada"]).value
    change.call("take_back")
    expect([Roost::Operations::OwnTasks.new.call(student), seat_of(row, "Bo").ok?]).to eq([[], false])
    expect(progress(row)["Ada Lindqvist"].answered).to eq(1)
    change.call("give_back")
    expect(Roost::Operations::OwnTasks.new.call(student).map(&:stage)).to eq([:done])
  end

  it "is not closed before it has opened" do
    row = assign(opens: 2)
    refused = Roost::Operations::ChangeAssignment.new.call(account, row.id, "close")
    expect([refused.reason, again(row).ended_at]).to eq([Roost::Operations::ChangeAssignment::NOT_OPEN, nil])
  end

  it "closes at another time for all, but for who has longer" do
    row = assign
    seat = seat_of(row)
    take(row, seat, begins: true)
    longest = Roost::Store::Sessions.new.now + (30 * 86_400)
    allow(row, seat, { "way" => "until", "closes_at" => school.field(longest) })
    change(row, { "closes_at" => school.field(longest - 86_400) })
    expect(take(row, seat).sitting.window_ends_at).to be_within(60).of(longest)
    expect(take(row, seat).task.ends_at).to be_within(60).of(longest)
  end

  it "changes its rules after it was given: for those who start from now on, attempts for all" do
    row = assign
    ada, bo = %w[Ada Bo].map { |name| seat_of(row, name) }
    take(row, ada, begins: true)
    done = change(row, { "opens_at" => school.field(Roost::Store::Sessions.new.now - 7200), "feedback" => "right",
                         "limit" => "20", "attempts" => "3", "counts" => "last" })
    expect(done).to be_ok
    expect([ada, bo].map { |seat| take(row, seat, begins: true).sitting.rules.values_at("feedback", "limit") })
      .to eq([["end", nil], ["right", 1200]])
    expect(take(row, ada).task.rules.values_at("attempts", "counts")).to eq([3, "last"])
    expect(change(row, { "closes_at" => "2020-01-01T08:00" }).reason).to start_with("It has to close after it opens")
    expect(take(row, ada).task.rules["attempts"]).to eq(3)
  end

  it "takes no more once it is withdrawn, and goes on where it was when it is assigned again" do
    row = assign
    seat = seat_of(row)
    take(row, seat, begins: true)
    Roost::Operations::ChangeAssignment.new.call(account, row.id, "take_back")
    database[:sittings].update(window_ends_at: Sequel.lit("window_ends_at - interval '2 seconds'"))
    expect(save(row, seat, "q0", picked("o1"), final: false).state).to eq("late")
    expect([take(row, seat).task.withdrawn, take(row, seat).sitting.over?(Roost::Store::Sessions.new.now)]).to eq([true, true])
    Roost::Operations::ChangeAssignment.new.call(account, row.id, "give_back")
    expect(save(row, seat, "q1", picked("o1")).state).to eq("final")
  end

  it "is given once when the button is pressed twice, by two windows at once, too" do
    once = SecureRandom.uuid
    lesson_id = kept_lesson(account, lesson)
    now = Roost::Store::Sessions.new.now
    form = { "once" => once, "opens_at" => school.field(now), "closes_at" => school.field(now + 7200), "class_id" => kestrel.to_s,
             "entry" => "pass" }
    given = at_once([1, 2, 3, 4]) { Roost::Operations::AssignLesson.new.call(account, lesson_id, form).value.id }
    expect([given.uniq.length, database[:assignments].count]).to eq([1, 1])
    expect(Roost::Operations::AssignLesson.new.call(account, lesson_id, form.merge("once" => SecureRandom.uuid)).value.id)
      .not_to eq(given.first)
  end

  it "says of somebody who has longer but has not come that they have not opened it" do
    row = assign
    who = Roost::Store::Students.new.of_class(kestrel).find { |student| student.shown_name == "Bo" }
    later = { "way" => "until", "closes_at" => school.field(Roost::Store::Sessions.new.now + (9 * 86_400)) }
    Roost::Operations::AllowMore.new.call(account, row.id, { student_id: who.id }, later)
    expect(progress(row).transform_values(&:stage)).to include("Bo Marsh" => :not_opened)
    Roost::Operations::VisitSeat.new.call(seat_of(row, "Bo"), again(row))
    expect(progress(row)["Bo Marsh"].stage).to eq(:opened)
  end

  it "is mailed to the teacher, with who has not finished, and is a date for calendars" do
    row = assign(title: "Birds; all, of them")
    Roost::Operations::MailAssignment.new.call(account, row.id, "https://x/join/ABC", only_open: true)
    mail = database[:outbox_mails].first
    expect([mail[:recipient], mail[:body]]).to match(["falk@heronsgate.example", /Not finished yet: Ada Lindqvist, Bo Marsh\./])
    about = { uid: "1@x", title: "#{row.title} #{"é" * 60}", url: "https://x/join/ABC" }
    lines = Roost::Exchange::Calendar.event(**about, opens_at: 0.0, closes_at: 3600.0, stamp: 60.0).split("\r\n")
    expect(lines).to include("DTSTART:19700101T000000Z", "DTEND:19700101T010000Z",
                             "SUMMARY:Birds\\; all\\, of them #{"é" * 22}")
    expect(lines.map(&:bytesize)).to all(be <= 75)
  end

  it "comes of a session for those who missed something, each what they missed, and for nobody else" do
    form = { "class_id" => kestrel.to_s, "entry" => "pass", "opens_itself" => "1" }
    live = Roost::Operations::StartSession.new.call(account, kept_lesson(account, lesson), form).value
    command(live, "begin")
    seat = seat_of(live)
    %w[q0 q1 q2].each do |id|
      command(live, "jump", slide: id)
      Roost::Operations::VisitSeat.new.call(seat, again(live))
      save(live, seat, id, picked(id == "q1" ? "o2" : "o1"))
    end
    command(live, "end")
    row = Roost::Operations::GiveCatchUp.new.call(account, live.id).value
    tasks = Roost::Operations::OwnTasks.new.call(Roost::Operations::EnterByPass.student(passes["Bo"]).value)
    expect(tasks.map { |task| [task.stage, task.asked] }).to eq([[:to_do, 3]])
    expect(progress(row).transform_values(&:asked)).to eq("Ada Lindqvist" => 1, "Bo Marsh" => 3)
    expect(take(row, seat_of(row)).task.slides.map(&:id)).to eq(%w[q1])
    only = Roost::Operations::GiveCatchUp.new
    bo = Roost::Store::Students.new.of_class(kestrel).find { |student| student.shown_name == "Bo" }
    other = only.call(account, live.id, chosen: [bo.id]).value
    expect(Roost::Operations::EnterByPass.new.call(passes["Ada"], other.id).reason).to eq(Roost::Operations::EnterByPass::NOT_THEIRS)
    expect(only.call(account, live.id, chosen: []).reason).to eq(Roost::Operations::GiveCatchUp::NOBODY)
    expect(only.call(teacher(email: "moss@heronsgate.example"), live.id)).to be_nil
  end
end
