# frozen_string_literal: true

RSpec.describe "The school" do
  ops = Roost::Operations
  let!(:keeper) { teacher }
  let(:other) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }
  let(:school) { Roost::Store::School.new }
  let(:settings) do
    { "name" => "Heronsgate School", "time_zone" => "Europe/London", "top_grade" => "10", "grade_step" => "0,5",
      "keep_days" => "730", "joining" => "domains",
      "domains" => "@Heronsgate.example, marsh.example" }
  end

  it "is kept by the first account, however many come at the same moment" do
    expect(school.keeper?(keeper)).to be(true)
    database[:accounts].delete
    ids = at_once((1..8).to_a) { |number| teacher(email: "t#{number}@heronsgate.example") }
    expect(ids.count { |id| school.keeper?(id) }).to eq(1)
  end

  it "takes its settings from the keeper alone, and says what is wrong with them" do
    expect(ops::KeepSchool.new.change(other, settings)).to be_nil
    expect(ops::KeepSchool.new.change(keeper, settings)).to be_ok
    expect(school.settings.to_h).to include(name: "Heronsgate School", top_grade: 10, grade_step: 0.5, keep_days: 730,
                                            domains: %w[heronsgate.example marsh.example])
    { "top_grade" => ["0", "a lot", "1001"], "grade_step" => ["11", ""], "name" => ["x" * 81],
      "time_zone" => ["here", "Europe/London; DROP", "Europe/Heronsgate"],
      "domains" => ["", "no domain", "a@b@c", "-x.example"] }.each do |field, values|
      values.each { |value| expect(ops::KeepSchool.new.change(keeper, settings.merge(field => value)).reason).to be_a(String) }
    end
    expect(school.settings.name).to eq("Heronsgate School")
  end

  describe "who may teach here" do
    def may?(email, invitation = nil) = school.may_join?(email, invitation)

    def key(email)
      Roost::Operations::KeepSchool.new.invite(keeper, email).value[/key=(.+)/, 1]
    end

    it "is who has an address of the domains" do
      expect(may?("moss@marsh.example")).to be(false)
      ops::KeepSchool.new.change(keeper, settings)
      expect(%w[moss@marsh.example moss@MARSH.example moss@far.example moss@xmarsh.example].map { |email| may?(email) })
        .to eq([true, true, false, false])
    end

    it "is invited by mail for one address, or by a link on paper, for two weeks" do
      mailed = key("moss@far.example")
      paper = key("")
      expect([may?("Moss@far.example", mailed), may?("other@far.example", mailed), may?("other@far.example", paper)])
        .to eq([true, false, true])
      expect(database[:outbox_mails].select_map(%i[recipient body]).first).to match(["moss@far.example", /#{mailed}/])
      database[:invitations].update(created_at: Sequel.lit("now() - interval '15 days'"))
      expect(may?("moss@far.example", mailed)).to be(false)
      expect(ops::KeepSchool.new.invite(keeper, "not an address").reason).to eq("That isn't a whole email address.")
      expect(ops::KeepSchool.new.invite(other, "")).to be_nil
    end

    it "is the first by its link, however many open it at the same moment, within an hour, and by none of before" do
      expect(ops::FirstAccount.new.link).to be_nil
      database[:accounts].delete
      before, key = Array.new(2) { ops::FirstAccount.new.link[/key=(.+)/, 1] }
      typed = { "name" => "Ms Moss", "email" => "moss@far.example", "time_zone" => "Europe/Dublin" }
      about = ops::FirstAccount.new.read(typed).value
      expect([before, key].map { |each| ops::FirstAccount.new.good?(each) }).to eq([false, true])
      made = at_once([key] * 6) { |each| ops::FirstAccount.new.call(each, about, "x") }
      expect(made.compact).to eq(["moss@far.example"])
      expect(school.teachers.map { |each| [each.name, each.keeper] }).to eq([["Ms Moss", true]])
      expect(school.settings.time_zone).to eq("Europe/Dublin")
      database[:accounts].delete
      late = ops::FirstAccount.new.link[/key=(.+)/, 1]
      database[:set_up_keys].update(created_at: Sequel.lit("now() - interval '61 minutes'"))
      expect(ops::FirstAccount.new.good?(late)).to be(false)
    end

    it "makes one account of an invitation, however many open it at the same moment" do
      invitation = key("")
      mails = Array.new(6) { |number| "moss#{number}@far.example" }.map do |email|
        ops::SignUp.new.begin(email: email, name: "Moss", invitation: invitation)
        database[:outbox_mails].order(:id).last[:body][/key=(\S+)/, 1]
      end
      made = at_once(mails) { |each| ops::SignUp.new.finish(each, "x") }
      expect(made.compact.length).to eq(1)
      expect(database[:invitations].count).to eq(0)
    end
  end

  it "hands what was one teacher's to another, who may have shared it before" do
    lesson = kept_lesson(other)
    klass = ops::KeepClass.new.create(other, { "name" => "Kestrel" }).value
    ops::FillClass.new.fill(other, klass, Roost::Core::ClassList.paste("Ada Lindqvist").value)
    Roost::Store::Sharing.new.share(lesson, keeper, may_edit: false)
    expect(ops::KeepSchool.new.hand_over(other, other, keeper)).to be_nil
    expect(ops::KeepSchool.new.hand_over(keeper, other, other).reason).to start_with("Choose another teacher")
    session = kept_session(other)
    Roost::Store::Bank.new.keep(other, marsh_lesson.prompts, taken_from: "Birds")
    expect(ops::KeepSchool.new.hand_over(keeper, other, keeper)).to be_ok
    expect(Roost::Store::PastSessions.new.all_of(keeper).map(&:id)).to eq([session.id])
    expect(database[:bank_questions].select_map(:account_id).uniq).to eq([keeper])
    expect(Roost::Store::Catalogue.new.entry(keeper, lesson).role).to eq(:owner)
    expect(Roost::Store::Classes.new.find(keeper, klass).to_h).to include(mine: true, students: 1)
    expect([Roost::Store::Classes.new.find(other, klass), Roost::Store::Catalogue.new.entry(other, lesson)]).to eq([nil, nil])
  end

  it "keeps sessions no longer than it says" do
    session = kept_session(keeper)
    command(session, "end")
    database[:sessions].update(ended_at: Sequel.lit("now() - interval '800 days'"))
    ops::Purge.new.call
    expect(database[:sessions].count).to eq(1)
    ops::KeepSchool.new.change(keeper, settings)
    ops::Purge.new.call
    expect(database[:sessions].count).to eq(0)
  end
end
