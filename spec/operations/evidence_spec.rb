# frozen_string_literal: true

# What looks across sessions reads evidence alone: it is what the results of each session say, also after they have changed.
RSpec.describe Roost::Operations::WriteEvidence do
  let(:account) { teacher }
  let(:evidence) { Roost::Store::Evidence.new }
  let(:lesson) do
    slides = Array.new(4) do |at|
      slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1], subtopics: ["food"], practice: at == 3))
    end
    kept_lesson(account, Roost::Core::Lesson.new(title: "Birds", slides: slides))
  end
  let(:session) { Roost::Operations::StartSession.new.call(account, lesson, { "opens_itself" => "1", "own_copy" => "1" }).value }
  let(:seats) { %w[Ada Bo].map { |name| take_seat(session, name).first } }

  # @param picks [Array<String>] what Ada gives to the first questions; Bo is shown them and gives nothing
  def hold(picks, ends: true)
    command(session, "begin")
    picks.each_with_index do |option, at|
      command(session, "jump", slide: "q#{at}")
      seats.each { |seat| Roost::Operations::VisitSeat.new.call(seat, Roost::Store::Sessions.new.find(session.id)) }
      save(session, seats.first, "q#{at}", picked(option))
    end
    command(session, "end") if ends
  end

  def marks
    described_class.new.call([session.id])
    evidence.by_question([session.id]).to_h { |question| [question.slide_id, [question.earned, question.many]] }
  end

  def of_results
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id))
    results = Roost::Core::Analysis::Results.new(record)
    all = results.slides.to_h { |slide| [slide.id, record.outcomes(slide.id).values.filter_map(&:mark)] }
    all.reject { |_, marks| marks.empty? }.transform_values { |marks| [marks.sum, marks.length] }
  end

  it "is there once a session has ended, and is what its results say" do
    hold(%w[o1 o2 o1], ends: false)
    expect(marks).to eq({})
    command(session, "end")
    expect([marks, marks]).to eq([of_results] * 2)
    expect(marks).to eq({ "q0" => [1, 2], "q1" => [0, 2], "q2" => [1, 2] })
    expect(database[:que_jobs].where(job_class: "Roost::Jobs::WriteEvidence").count).to eq(1)
  end

  it "follows a corrected key, a question that is left out, and late answers that are let count or come in" do
    hold(%w[o1 o2 o1])
    first = marks
    Roost::Operations::CorrectQuestion.new.call(account, session.id, "q1", { "keys" => ["o2"] }, in_lesson: false)
    expect([marks, marks["q1"]]).to eq([of_results, [1, 2]])
    command(session, "put_aside", slide: "q0")
    expect([marks, marks["q0"]]).to eq([of_results, nil])
    command(session, "count_again", slide: "q0")
    expect(marks["q0"]).to eq(first["q0"])
    database[:openings].update(closed_at: Sequel.lit("closed_at - interval '1 minute'"),
                               opened_at: Sequel.lit("opened_at - interval '2 minutes'"))
    database[:seats].update(joined_at: Sequel.lit("joined_at - interval '3 minutes'"))
    save(session, seats.last, "q2", picked("o1"))
    expect(marks["q2"]).to eq([1, 2])
    Roost::Operations::LetCount.new.call(account, session.id, "q2", counts: true)
    expect([marks, marks["q2"]]).to eq([of_results, [2, 2]])
  end

  it "is not written again where nothing has changed" do
    hold(%w[o1])
    expect(Array.new(2) { described_class.new.call([session.id]) }).to eq([[session.id], []])
  end

  it "tells each student's page what the results tell: share, points, and what they know by topic without practice" do
    person = Roost::Store::Students.new.create(account, [{ name: "Ada Lindqvist", shown_name: "Ada" }]).first
    Roost::Store::Seats.new.belong(seats.first[:id], student_id: person, team_id: nil)
    hold(%w[o1 o2 o1 o2])
    row = Roost::Store::Sessions.new.find(session.id)
    line = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(row)).line_of(seats.first[:id])
    own = Roost::Operations::OwnResults.new.call(Struct.new(:id).new(person))
    expect(own.past.map { |past| [past.share, past.right, past.marked, past.points] }).to eq([[line.share, line.right, 3, nil]])
    expect(own.topics.map { |topic| [topic.name, topic.share, topic.many] }).to eq([["food", 2/3r, 3]])
  end

  it "is written by one of many who look at once, and by nobody again a moment later" do
    hold(%w[o1 o2])
    wrote = at_once([1, 2, 3, 4]) { described_class.new.call([session.id]) }
    expect(wrote.flatten).to eq([session.id])
    expect([described_class.new.call([session.id]), marks]).to eq([[], of_results])
    # Who had to wait for the other looks again before anything is worked out.
    expect(evidence.renew(session.id) { raise "worked out twice" }).to be(false)
  end

  it "has an answer that was on its way when it was written" do
    hold(%w[o1 o2])
    marks
    database[:answers].where(slide_id: "q1").update(value: Sequel.pg_jsonb(picked("o1")))
    expect(marks["q1"]).to eq([0, 2])
    database[:sessions].update(evidenced_at: Sequel.lit("evidenced_at - interval '3 seconds'"))
    expect(marks["q1"]).to eq([1, 2])
  end

  # A job's lock is its number alone, and the job that writes this may have the number of the session.
  it "waits for no job" do
    hold(%w[o1])
    locked = Queue.new
    done = Queue.new
    worker = Thread.new do
      database.synchronize do |connection|
        connection.exec("SELECT pg_advisory_lock(#{session.id})")
        locked << true
        done.pop
        connection.exec("SELECT pg_advisory_unlock(#{session.id})")
      end
    end
    locked.pop
    expect(Timeout.timeout(10) { described_class.new.call([session.id]) }).to eq([session.id])
  ensure
    done << true
    worker.join
  end
end
