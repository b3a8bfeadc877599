# frozen_string_literal: true

RSpec.describe "Who takes part in a session" do
  let(:account) { teacher }
  let(:session) { kept_session(account).tap { |kept| command(kept, "begin") } }
  let(:seats) { Roost::Store::Seats.new }

  def rename(...) = Roost::Operations::RenameSeat.new.call(...)
  def remove(...) = Roost::Operations::RemoveSeat.new.call(...)

  it "is renamed by the teacher, with the same limits as when joining, and recorded" do
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name).first }
    expect(rename(account, session.id, ada[:id], " Ada  L ").value).to eq("Ada L")
    expect(rename(account, session.id, ada[:id], "bo").value).to eq("bo 2")
    expect(rename(account, session.id, bo[:id], "Bo").value).to eq("Bo")
    expect(moment(session).names.values).to eq(["bo 2", "Bo"])
    expect(Roost::Store::Sessions.new.commands(session.id).map(&:name).last(3)).to eq(["rename"] * 3)
  end

  it "is not renamed to what the database takes for the name of another" do
    ada = %w[Ada i].map { |name| take_seat(session, name).first }.first
    expect(rename(account, session.id, ada[:id], "İ").reason).to eq("That name is taken. Add a letter or a number to it.")
    expect(moment(session).names.values).to eq(%w[Ada i])
  end

  it "is renamed and removed by nobody else, and not from another session" do
    ada = take_seat(session, "Ada").first
    other = teacher(email: "moss@heronsgate.example")
    elsewhere = kept_session(account)
    expect([rename(other, session.id, ada[:id], "X"), remove(other, session.id, ada[:id]),
            rename(account, elsewhere.id, ada[:id], "X"), remove(account, elsewhere.id, ada[:id])]).to eq([nil] * 4)
    expect(moment(session).names.values).to eq(["Ada"])
  end

  it "is gone once removed: from lists, counts and results; its device saves no more, and the name stays taken" do
    command(session, "jump", slide: "s2")
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name) }
    [ada, bo].each { |seat, _| save(session, seat, "s2", picked("o1")) }
    expect(remove(account, session.id, ada.first[:id])).to be_ok
    expect([seats.by_token(ada.last), seats.count([session.id])]).to eq([nil, { session.id => 1 }])
    expect(moment(session).tally.answered).to eq(1)
    expect(Roost::Core::Analysis::Results.new(moment(session).record).lines.map { |line| line.seat.name }).to eq(["Bo"])
    expect(save(session, ada.first, "s2", picked("o2"), save_no: 2).state).not_to eq("final")
    expect(take_seat(session, "Ada").first[:name]).to eq("Ada 2")
  end

  describe "as a person and in a team" do
    def student(name = "Ada Lovage") = database[:students].insert(account_id: account, name: name, shown_name: name.split.first)

    def team(whose, name = "Herons") = database[:teams].insert(session_id: whose.id, name: name)

    it "belongs to a student, once a session, and to a team of the same session" do
      ada, bo = %w[Ada Bo].map { |name| take_seat(session, name).first }
      person = student
      herons = team(session)
      seats.belong(ada[:id], student_id: person, team_id: herons)
      expect(moment(session).seats.first).to have_attributes(student_id: person, team_id: herons)
      expect { seats.belong(bo[:id], student_id: person, team_id: nil) }.to raise_error(Sequel::UniqueConstraintViolation)
      foreign = team(kept_session(account))
      expect { seats.belong(bo[:id], student_id: nil, team_id: foreign) }.to raise_error(Sequel::ForeignKeyConstraintViolation)
      remove(account, session.id, ada[:id])
      seats.belong(bo[:id], student_id: person, team_id: nil) # the removed seat is theirs no more
      database[:students].where(id: person).delete
      expect(moment(session).seats.first.student_id).to be_nil
    end

    it "is in a class once, in several classes, and in none that isn't there" do
      klass, other = %w[Kestrel Swift].map { |name| database[:classes].insert(account_id: account, name: name) }
      person = student
      [klass, other].each { |id| database[:enrolments].insert(class_id: id, student_id: person) }
      again = -> { database[:enrolments].insert(class_id: klass, student_id: person) }
      expect(&again).to raise_error(Sequel::UniqueConstraintViolation)
      before = { ended_on: Sequel.lit("began_on - 1") }
      expect { database[:enrolments].update(before) }.to raise_error(Sequel::CheckConstraintViolation)
      expect { database[:students].update(time_factor: 1.1) }.to raise_error(Sequel::CheckConstraintViolation)
      database[:classes].where(id: klass).delete
      expect(database[:enrolments].select_map(:class_id)).to eq([other])
    end

    it "keeps who was in which team when a question opened" do
      ada = take_seat(session, "Ada").first
      herons = team(session)
      swifts = team(session, "Swifts")
      command(session, "jump", slide: "s3")
      row = { session_id: session.id, slide_id: "s3", attempt: 1, seat_id: ada[:id] }
      database[:opening_teams].insert(**row, team_id: herons)
      expect { database[:opening_teams].insert(**row, team_id: swifts) }.to raise_error(Sequel::UniqueConstraintViolation)
      expect { database[:opening_teams].insert(**row, slide_id: "s4", team_id: herons) }
        .to raise_error(Sequel::ForeignKeyConstraintViolation)
    end
  end
end
