# frozen_string_literal: true

require "logger"

# What looks back asks of tables that grow with every lesson is found by an index, however large they become.
RSpec.describe "Plans of the queries that look back" do
  let(:large) do
    %w[evidence seat_results question_results closing_results answers seats deliveries openings hand_marks second_marks
       sittings visits grade_entries grade_changes looked_at comments notes session_events sent_texts]
  end
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:student) do
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm\nBo Lind").value)
    Roost::Store::Students.new.of_class(klass).first
  end
  let(:session) do
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1", "own_copy" => "1" }
    Roost::Operations::StartSession.new.call(account, kept_lesson(account), form).value
  end

  # @return [Array<String>] what was asked of the database meanwhile
  def asked
    asked = []
    log = Logger.new(File::NULL)
    log.define_singleton_method(:info) { |text| asked << text.sub(/\A\([\d.]+s\) /, "") }
    database.loggers << log
    yield
    asked.grep(/\A(?:SELECT|WITH)/).uniq
  ensure
    database.loggers.delete(log)
  end

  # @return [Array<String>] tables of the large ones that a query goes through from end to end
  def gone_through(sql)
    plan = database.fetch("EXPLAIN #{sql}").map(:"QUERY PLAN").join("\n")
    plan.scan(/Seq Scan on (\w+)/).flatten & large
  end

  def hold
    token = Roost::Operations::JoinSession.new.call(session.code, "", student_id: student.id).value
    seat = Roost::Store::Seats.new.by_token(token)
    command(session, "begin")
    command(session, "jump", slide: "s3")
    save(session, seat, "s3", picked("o1"))
    command(session, "jump", slide: "s4")
    save(session, seat, "s4", { "text" => ["By smell"] })
    command(session, "end")
    Roost::Operations::MarkByHand.new.call(account, session.id, "s4", { seat[:id] => "1/2" })
  end

  def look_back
    [Roost::Operations::GradeClass, Roost::Operations::WhoHasIt, Roost::Operations::ClassOverTime].each do |page|
      page.new.call(account, klass)
    end
    Roost::Operations::BringBack.new.needs(account, klass)
    Roost::Operations::OwnResults.new.call(student)
    Roost::Operations::OverSessions.new.call(account, %w[p3 p4])
    Roost::Operations::ToMark.new.call(account)
    Roost::Operations::LastTime.new.call(account, session.lesson_id)
    Roost::Store::Records.new.whole(Roost::Store::Sessions.new.find(session.id))
    Roost::Store::Gradebooks.new.changes(account, klass)
    look_at_records
  end

  def look_at_records
    Roost::Store::LookedAt.new.latest(student_id: student.id)
    Roost::Store::LookedAt.new.latest
    json = Roost::Operations::StudentJson.new
    json.file(json.subject(account, student.id))
  end

  it "go by indexes" do
    student && hold
    queries = asked { look_back }
    expect(queries.length).to be > 40
    through = database.transaction(rollback: :always) do
      database.run("SET LOCAL enable_seqscan = off")
      queries.to_h { |sql| [sql, gone_through(sql)] }.reject { |_, tables| tables.empty? }
    end
    expect(through).to eq({})
  end
end
