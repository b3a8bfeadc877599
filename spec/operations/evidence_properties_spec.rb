# frozen_string_literal: true

# Made-up terms: sessions of one class, each changed afterwards in ways that are drawn by chance. What evidence says is what the
# results of each session say, and it is the same in whatever order the changes came, and however often somebody looked between.
RSpec.describe Roost::Operations::WriteEvidence, "over made-up terms" do
  let(:questions) { 5 }
  let(:came) { 4 }
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:students) do
    pasted = Array.new(came + 1) { |at| "#{%w[Ada Bo Cleo Dov Eda][at]} Holm#{at}" }.join("\n")
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste(pasted).value)
    Roost::Store::Students.new.of_class(klass)
  end
  let(:lesson) do
    slides = Array.new(questions) do |at|
      asked = choice(id: "p#{at}", texts: %w[A B C], keys: %w[o1], points: 10 * (at + 1), subtopics: [%w[food weather][at % 2]])
      slide("q#{at}", prompt: at == 3 ? writing(id: "p3") : asked)
    end
    kept_lesson(account, Roost::Core::Lesson.new(title: "Birds", slides: slides))
  end

  before { students }

  # A session in which each gave what the plan says; nil gives nothing, and the last student never came.
  def hold(plan)
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1" }
    session = Roost::Operations::StartSession.new.call(account, lesson, form).value
    seats = students.first(came).map do |student|
      Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(session.code, "", student_id: student.id).value)
    end
    command(session, "begin")
    questions.times do |at|
      command(session, "jump", slide: "q#{at}")
      seats.each_with_index { |seat, who| plan[who][at] && save(session, seat, "q#{at}", given(at, plan[who][at])) }
    end
    command(session, "end")
    { row: session, seats: seats.map { |seat| seat[:id] } }
  end

  def given(at, option) = at == 3 ? { "text" => "Because of #{option}" } : picked(option)

  # What is changed afterwards, each kind of change about another question or seat than the others, so that they commute.
  def changes(chance)
    marks = Array.new(came) { Roost::Core::Grading::HandMark::QUARTERS.sample(random: chance) }
    { key: chance.rand < 0.7 && "o#{chance.rand(2..3)}", aside: chance.rand < 0.6, marks: chance.rand < 0.8 && marks,
      taken_back: chance.rand < 0.5 && chance.rand(came), linked: chance.rand < 0.5 }
  end

  def steps(held, what)
    row, seats = held.values_at(:row, :seats)
    mark = ->(marks) { Roost::Operations::MarkByHand.new.call(account, row.id, "q3", marks) }
    correct = -> { Roost::Operations::CorrectQuestion.new.call(account, row.id, "q1", { "keys" => [what[:key]] }, in_lesson: false) }
    [(correct if what[:key]), (-> { command(row, "put_aside", slide: "q2") } if what[:aside]),
     -> { %w[put_aside count_again].each { |name| command(row, name, slide: "q4") } },
     (-> { mark_and_take_back(mark, seats, **what.slice(:marks, :taken_back)) } if what[:marks]),
     (-> { Roost::Operations::LinkSeat.new.call(account, row.id, seats[0], students.last.id) } if what[:linked])].compact
  end

  def mark_and_take_back(mark, seats, marks:, taken_back:)
    mark.call(seats.zip(marks).to_h)
    mark.call({ seats[taken_back] => "" }) if taken_back
  end

  # All that looks across sessions can find of a session, by the place of the seat.
  def found(held)
    described_class.new.call([held[:row].id])
    place = held[:seats].each_with_index.to_h
    columns = %i[slide_id attempt origin mark_num mark_den weight counts]
    evidence = database[:evidence].where(session_id: held[:row].id).select(:seat_id, *columns, :tags)
    results = database[:seat_results].where(session_id: held[:row].id)
                                     .select(:seat_id, :share, :right, :marked, :points, :waiting)
    [evidence, results].map { |rows| rows.map { |each| [place[each[:seat_id]], *each.values.drop(1)] }.sort_by(&:inspect) } +
      [Roost::Store::Evidence.new.class_results([held[:row].id], students.map(&:id)).map { |each| each[:student_id] }.sort]
  end

  def of_results(held)
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(held[:row].id))
    lines = Roost::Core::Analysis::Results.new(record).lines
    lines.map { |line| [held[:seats].index(line.seat.id), line.share, line.right, line.marked] }.sort
  end

  def of_evidence(held)
    rows = Roost::Store::Evidence.new.seat_results(held[:seats])
    rows.map { |id, result| [held[:seats].index(id), result.share, result.right, result.marked] }.sort
  end

  5.times do |seed|
    it "is what results say, in any order of changes (term #{seed})" do
      chance = Random.new(seed)
      plan = Array.new(came) { Array.new(questions) { [nil, "o1", "o2", "o3"].sample(random: chance) } }
      what = changes(chance)
      one, other = Array.new(2) { hold(plan) }
      steps(one, what).shuffle(random: chance).each do |step|
        step.call
        expect(of_evidence(one)).to eq(of_results(one)) if chance.rand < 0.5 && described_class.new.call([one[:row].id])
      end
      steps(other, what).shuffle(random: chance).each(&:call)
      expect(found(one)).to eq(found(other))
      expect(of_evidence(one)).to eq(of_results(one))
      # An earlier look at it changes nothing either: written from nothing, the same is there.
      before = found(one)
      database[:sessions].update(evidence_no: nil)
      expect(found(one)).to eq(before)
    end
  end
end
