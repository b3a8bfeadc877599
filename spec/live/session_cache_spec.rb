# frozen_string_literal: true

RSpec.describe Roost::Live::SessionCache do
  let(:account) { teacher }
  let(:session) { kept_session(account).tap { |kept| command(kept, "begin") } }
  let(:cache) { described_class.new(session.id) }

  def told(moment)
    slides = moment.lesson.prompts
    answers, shown = [moment.record.answers, moment.record.shown].map { |of_questions| of_questions.transform_values(&:to_h) }
    [moment.seats, answers, shown, moment.state.slide_id, moment.seat_statuses, moment.standings,
     slides.map { |slide| [moment.given(slide.id), moment.seats.map { |seat| moment.record.outcome(slide.id, seat.id) }] }]
  end

  it "says what the session itself says, whatever command comes" do
    command(session, "jump", slide: "s2")
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name).first }
    [ada, bo].each { |seat| save(session, seat, "s2", { "options" => ["o1"] }) }
    told(cache.moment)
    steps = [%w[close], ["show", { what: "results" }], ["again", { after: 1 }], %w[close], ["put_aside", { slide: "s2" }],
             ["jump", { slide: "s3" }], ["jump", { slide: "s2" }], %w[eyes_up], %w[end]]
    steps.each do |name, arguments|
      expect(command(session, name, **arguments.to_h)).to be_ok, name
      expect(told(cache.moment(Set[:state]))).to eq(told(moment(session))), name
    end
  end

  it "says what the session itself says, whatever happens to it" do
    told(cache.moment)
    steps = [-> { command(session, "jump", slide: "s2") },
             -> { save(session, take_seat(session, "Ada").first, "s2", { "options" => ["o1"] }) },
             -> { Roost::Store::Deliveries.new.note(session.id, "s2", [take_seat(session, "Bo").first[:id]]) },
             -> { Roost::Store::Deliveries.new.note(session.id, "s3", [take_seat(session, "Cleo").first[:id]]) },
             -> { Roost::Store::Seats.new.arrive(take_seat(session, "Dev").first[:id], "key") },
             -> { Roost::Store::Seats.new.leave("key") }]
    steps.each do |step|
      step.call
      expect(told(cache.moment)).to eq(told(moment(session)))
    end
  end

  it "sees an answer that became visible after one that was written later" do
    command(session, "jump", slide: "s2")
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name).first }
    [ada, bo].each { |seat| save(session, seat, "s2", { "options" => ["o1"] }) }
    first = database[:answers].where(seat_id: ada[:id])
    row = first.first
    first.delete
    2.times { cache.moment(Set[:answers]) }
    database[:answers].insert(**row, value: Sequel.pg_jsonb(row[:value].to_h))
    expect(cache.moment(Set[:answers]).record.all_answers("s2").keys).to match_array([ada[:id], bo[:id]])
  end

  it "does not ask again who is there, or where the session stands, when only answers came" do
    command(session, "jump", slide: "s2")
    ada = take_seat(session, "Ada").first
    before = cache.moment
    take_seat(session, "Bo")
    save(session, ada, "s2", { "options" => ["o1"] })
    command(session, "jump", slide: "s3")
    later = cache.moment(Set[:answers])
    expect(later.seats).to equal(before.seats)
    expect([later.state.slide_id, later.record.answers.length]).to eq(["s2", 1])
    expect(cache.row.now).to be_within(0.5).of(Roost::Store::Sessions.new.now)
    expect(cache.moment).to have_attributes(seats: [have_attributes(name: "Ada"), have_attributes(name: "Bo")],
                                            state: have_attributes(slide_id: "s3"))
  end

  it "does not ask again who is there after a command, but where the session stands, and what was worked out is kept" do
    command(session, "jump", slide: "s2")
    ada = take_seat(session, "Ada").first
    save(session, ada, "s2", { "options" => ["o1"] })
    before = cache.moment
    given = before.given("s2")
    take_seat(session, "Bo")
    command(session, "jump", slide: "s3")
    later = cache.moment(Set[:answers, :state])
    expect(later.seats).to equal(before.seats)
    expect(later.given("s2")).to equal(given)
    expect(later.state.slide_id).to eq("s3")
    expect(cache.moment(Set[:state, :people]).seats.map(&:name)).to eq(%w[Ada Bo])
  end

  it "does not ask again after a command for teams, the class's list and names that were stopped, but when people changed" do
    klass = database[:classes].insert(account_id: account, name: "Year 7 Kestrel")
    session = kept_session(account, teams: "dealt")
    database[:sessions].where(id: session.id).update(class_id: klass)
    cache = described_class.new(session.id)
    lists = ->(moment) { [moment.teams.length, moment.roll.map(&:name), moment.stopped] }
    before = lists.call(cache.moment)
    student = database[:students].insert(account_id: account, name: "Cleo", shown_name: "Cleo")
    database[:enrolments].insert(class_id: klass, student_id: student)
    database[:teams].insert(session_id: session.id, name: "Herons")
    Roost::Store::StoppedNames.new.note(session.id, "rude")
    expect(lists.call(cache.moment(Set[:state]))).to eq(before)
    expect(lists.call(cache.moment(Set[:state, :people]))).to eq([before[0] + 1, ["Cleo"], ["rude"]])
  end

  it "lets what it handed on stand as it was when more comes" do
    command(session, "jump", slide: "s2")
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name).first }
    save(session, ada, "s2", { "options" => ["o1"] })
    first = cache.moment
    save(session, bo, "s2", { "options" => ["o2"] })
    second = cache.moment(Set[:answers])
    save(session, bo, "s2", { "options" => ["o1"] }, save_no: 2)
    third = cache.moment(Set[:answers])
    chosen = ->(moment) { moment.given("s2").transform_values { |answer| answer.value["options"] } }
    expect([first, second, third].map(&chosen)).to eq([{ ada[:id] => ["o1"] }, { ada[:id] => ["o1"], bo[:id] => ["o2"] },
                                                       { ada[:id] => ["o1"], bo[:id] => ["o1"] }])
  end

  it "is nothing of a session that was deleted" do
    cache.moment
    command(session, "end")
    Roost::Store::Sessions.new.mark_deleted(account, session.id, true)
    expect(cache.moment).to be_nil
  end
end
