# frozen_string_literal: true

RSpec.describe "Classes and their students" do
  ops = Roost::Operations
  let(:account) { teacher }
  let(:other) { teacher(email: "moss@heronsgate.example") }
  let(:students) { Roost::Store::Students.new }

  def a_class(name = "Year 7 Kestrel", names = nil, owner: account)
    Roost::Operations::KeepClass.new.create(owner, { "name" => name }).value.tap { |id| fill(id, names, owner: owner) if names }
  end

  def look(id, text, owner: account) = Roost::Operations::FillClass.new.look_at_text(owner, id, text)

  def fill(id, text, owner: account, **more)
    ticket = look(id, text, owner: owner).value.ticket
    Roost::Operations::FillClass.new.call(owner, id, ticket, sheet: false, **more)
  end

  def names(id) = students.of_class(id).map(&:name)

  it "are made with a name, changed, archived, deleted and brought back, by their teacher alone" do
    expect(ops::KeepClass.new.create(account, { "name" => " " }).reason).to eq("A class needs a name.")
    id = a_class
    expect(ops::KeepClass.new.change(account, id, { "subject" => "Science" })).to be_ok
    tries = [ops::KeepClass.new.change(other, id, { "name" => "Mine" }), look(id, "Bo", owner: other),
             ops::KeepStudent.new.change(other, id, 1, {}), Roost::Store::Classes.new.find(other, id)]
    expect(tries).to eq([nil] * 4)
    expect([ops::KeepClass.new.archive(other, id), ops::KeepClass.new.delete(other, id)]).to eq([nil, nil])
    ops::KeepClass.new.archive(account, id)
    expect(%w[all archived].map do |shelf|
      Roost::Store::Classes.new.all(account, archived: shelf == "archived").length
    end).to eq([0, 1])
    ops::KeepClass.new.delete(account, id)
    expect(Roost::Store::Classes.new.find(account, id)).to be_nil
    expect(Roost::Store::Classes.new.deleted_lately(account).map(&:id)).to eq([id])
    ops::KeepClass.new.delete(account, id, deleted: false)
    expect(Roost::Store::Classes.new.find(account, id).to_h).to include(name: "Year 7 Kestrel", subject: "Science")
  end

  describe "a list of students" do
    it "saves nothing until it has been looked at, and comes in once" do
      id = a_class
      seen = look(id, "Ada Lindqvist\nMarsh, Bo").value
      expect(names(id)).to eq([])
      done = Array.new(2) { ops::FillClass.new.call(account, id, seen.ticket, sheet: false) }
      expect(done.map(&:ok?)).to eq([true, false])
      expect(done.last.reason).to start_with("That list isn't waiting here any more.")
      expect(names(id)).to eq(["Ada Lindqvist", "Bo Marsh"])
    end

    it "changes nothing the second time, and what is new the third" do
      id = a_class("Year 7 Kestrel", "Ada Lindqvist\t1\nBo Marsh")
      before = students.of_class(id)
      expect(fill(id, "Ada Lindqvist\t1\nBo Marsh").value.changing).to eq([])
      expect(students.of_class(id)).to eq(before)
      fill(id, "Ada Holm\t1\nCleo Okafor")
      expect(students.of_class(id).map { |each| [each.name, each.number] })
        .to eq([["Ada Holm", "1"], ["Bo Marsh", ""], ["Cleo Okafor", ""]])
    end

    it "makes one person of those who are in two classes, unless told otherwise" do
      first = a_class("Kestrel", "Ada Lindqvist\nBo Marsh")
      second = a_class("Avocet")
      fill(second, "Ada Lindqvist\nBo Marsh", apart: [2])
      ids = [first, second].map { |id| students.of_class(id).map(&:id) }
      expect(ids.map(&:length)).to eq([2, 2])
      expect(ids[0] & ids[1]).to eq([students.of_class(first).first.id])
      expect(students.classes_of(ids[0].first).map(&:last)).to eq(%w[Avocet Kestrel])
    end

    it "brings back who was taken out, as the same person" do
      id = a_class("Kestrel", "Ada Lindqvist\nBo Marsh")
      ada = students.of_class(id).first.id
      ops::KeepStudent.new.take_out(account, id, ada)
      expect(look(id, "Ada Lindqvist").value.difference.rows.map(&:state)).to eq([:enters])
      fill(id, "Ada Lindqvist")
      expect(students.of_class(id).first.id).to eq(ada)
    end

    it "comes from a sheet, and goes back into one, with what there is to say of each" do
      id = a_class
      sheet = "Class list of November\nLast name;First name;Group;Extra time;Number\n" \
              "Lindqvist;Ada;Reed;1,5;7\nMarsh;Bo;;9;\n;;;;3\n"
      look = Tempfile.create("list") { |file| (file << sheet).flush && ops::FillClass.new.look_at_sheet(account, id, file).value }
      expect(look.difference.rows.map { |row| [row.entry.row, row.state] }).to eq([[3, :new], [4, :refused], [5, :refused]])
      ops::FillClass.new.call(account, id, look.ticket, sheet: true)
      ada = students.of_class(id).first
      expect(ada.to_h).to include(name: "Ada Lindqvist", shown_name: "Ada", group: "Reed", time_factor: "1.5", number: "7")
      back = Tempfile.create("back") do |file|
        (file << Roost::Exchange::ClassSheet.csv([ada])).flush && Roost::Exchange::ClassSheet.read(file.path).value
      end
      expect(Roost::Core::ClassListDifference.new(back, present: [ada]).changing).to eq([])
    end

    it "says what is wrong with a sheet of something else" do
      id = a_class
      reason = lambda { |text|
        Tempfile.create("x") do |file|
          (file << text).flush && ops::FillClass.new.look_at_sheet(account, id, file).reason
        end
      }
      expect(reason.call("Question,Right\nWhy?,A\n")).to start_with("has no column “Name”")
      expect(reason.call("Name\n")).to eq("has no students below its first row.")
      expect(reason.call("Name\n#{"Bo Marsh\n" * 301}")).to eq("has more than 300 students. Split it.")
    end

    it "never makes a class larger than it may be, whoever else fills it" do
      id = a_class("Kestrel", Array.new(290) { |number| "Student N#{number}" }.join("\n"))
      said = at_once(%w[a b]) { |letter| fill(id, Array.new(10) { |number| "Late #{letter}#{number}" }.join("\n")) }
      expect(said.map(&:ok?)).to contain_exactly(true, false)
      expect(said.find { |each| !each.ok? }.reason).to include("at most 300 students here, and these would make it 310")
      expect(names(id).length).to eq(300)
    end
  end

  it "are taught together with a colleague, who fills them and gives them lessons, but does not delete them" do
    id = a_class("Kestrel", "Ada Lindqvist")
    other
    share = ->(who, email) { ops::ShareClass.new.call(who, id, email) }
    expect(share.call(other, "moss@heronsgate.example")).to be_nil
    expect(share.call(account, "nobody@heronsgate.example").reason).to start_with("Nobody here has that email.")
    expect(share.call(account, "falk@heronsgate.example").reason).to start_with("That is you.")
    2.times { expect(share.call(account, "moss@heronsgate.example")).to be_ok }
    expect(fill(id, "Bo Marsh", owner: other)).to be_ok
    expect(names(id)).to eq(["Ada Lindqvist", "Bo Marsh"])
    form = { "class_id" => id.to_s, "entry" => "list" }
    expect(Roost::Operations::StartSession.new.call(other, kept_lesson(other), form).value.class_name).to eq("Kestrel")
    theirs = a_class("Avocet", "Ada Lindqvist", owner: other)
    ada = students.of_class(theirs).first.id
    expect(ada).to eq(students.of_class(id).first.id)
    expect(ops::KeepStudent.new.delete(other, theirs, ada).reason)
      .to eq("Ada Lindqvist is in “Kestrel”, too, which is a colleague's. Take them out of your class instead.")
    expect([ops::KeepClass.new.delete(other, id), ops::KeepClass.new.change(other, id, { "name" => "Mine" }),
            ops::KeepStudent.new.delete(other, id, students.of_class(id).first.id)]).to eq([nil] * 3)
    ops::ShareClass.new.stop(account, id, other)
    expect(Roost::Store::Classes.new.find(other, id)).to be_nil
  end

  it "are what they were to a colleague on the day she leaves: who comes later is not in her results, nor reached by her" do
    id = a_class("Kestrel", "Ada Lindqvist")
    ops::ShareClass.new.call(account, id, "moss@heronsgate.example") if other
    row = ops::StartSession.new.call(other, kept_lesson(other), { "class_id" => id.to_s, "entry" => "free" }).value
    command(row, "begin")
    ops::ShareClass.new.stop(account, id, other)
    fill(id, "Zoe Later")
    results = -> { Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(row.id)) }
    expect(results.call.roll.map(&:name)).to eq(["Ada Lindqvist"])
    command(row, "end")
    expect(Roost::Exchange::ResultsSheet.new(Roost::Core::Analysis::Results.new(results.call)).to_csv).not_to include("Zoe")
    expect(ops::GiveCatchUp.missed(Roost::Store::Sessions.new.find(row.id)).map do |each|
      each.student.name
    end).not_to include("Zoe Later")
    expect(ops::GiveCatchUp.new.call(other, row.id).reason).to eq(ops::GiveCatchUp::NOT_YOURS)
    own = ops::StartSession.new.call(account, kept_lesson(account), { "class_id" => id.to_s }).value
    expect(Roost::Store::Records.new.of(own).roll.map(&:name)).to eq(["Zoe Later", "Ada Lindqvist"])
    ops::ShareClass.new.call(account, id, "moss@heronsgate.example")
    expect(results.call.roll.length).to eq(2)
  end

  it "lose a student who is taken out and have them back, and go on into the next year" do
    old = a_class("Year 7", "Ada Lindqvist\nBo Marsh\nCleo Okafor")
    new = a_class("Year 8")
    ada, bo, = students.of_class(old).map(&:id)
    ops::KeepStudent.new.take_out(account, old, ada)
    expect([names(old), students.taken_out(old).map(&:id)]).to eq([["Bo Marsh", "Cleo Okafor"], [ada]])
    ops::KeepStudent.new.take_out(account, old, ada, out: false)
    expect(ops::KeepStudent.new.move(account, old, new, []).reason).to eq("Choose who moves.")
    expect(ops::KeepStudent.new.move(account, old, new, [ada, bo]).value).to eq(2)
    expect([names(old), names(new)]).to eq([["Cleo Okafor"], ["Ada Lindqvist", "Bo Marsh"]])
    expect(ops::KeepStudent.new.move(account, new, a_class("Theirs", owner: other), [ada])).to be_nil
  end

  it "are sorted by family names, by the alphabet of the school's language, and by first names where the teacher says so" do
    id = a_class("Kestrel", "Zoe Åberg\nAda van der Berg\nMarguerite\nÖrn Adam\nTheo Whit Jr\nGarcía López, María\nbo abel")
    by_family = ["bo abel", "Zoe Åberg", "Örn Adam", "María García López", "Marguerite", "Ada van der Berg", "Theo Whit Jr"]
    expect(names(id)).to eq(by_family)
    expect(students.of_class(id).map { |each| [each.given, each.family] })
      .to eq([%w[bo abel], %w[Zoe Åberg], %w[Örn Adam], ["María", "García López"], ["Marguerite", ""], ["Ada", "van der Berg"],
              ["Theo", "Whit Jr"]])
    settings = Roost::Store::School.new.settings.to_form.merge("language" => "sv", "time_zone" => "Europe/Stockholm")
    database[:accounts].where(id: account).update(keeper: true)
    expect(ops::KeepSchool.new.change(account, settings)).to be_ok
    expect(names(id)).to eq(by_family - ["Zoe Åberg"] + ["Zoe Åberg"])
    ops::KeepClass.new.change(account, id, { "sorted_by" => "first" })
    expect(names(id)).to eq(["Ada van der Berg", "bo abel", "Marguerite", "María García López", "Theo Whit Jr", "Zoe Åberg",
                             "Örn Adam"])
    student = students.of_class(id).first
    ops::KeepStudent.new.change(account, id, student.id, { "given" => "Ada van der", "family" => "Berg" })
    expect([students.find(id, student.id).name, students.find(id, student.id).family]).to eq(["Ada van der Berg", "Berg"])
  end

  it "keep what is said of a student, and refuse what can't be" do
    id = a_class("Kestrel", "Ada Lindqvist")
    ada = students.of_class(id).first.id
    change = ->(form) { ops::KeepStudent.new.change(account, id, ada, form) }
    expect(change.call({ "given" => "", "family" => "", "notes" => "x" }).reason).to eq("A student needs a name.")
    expect(change.call({ "time_factor" => "3" }).reason).to start_with("Extra time is")
    change.call({ "shown_name" => "Adi", "group" => "Reed", "notes" => "sits in front\nby the window", "time_factor" => "1.25" })
    expect(students.find(id, ada).to_h).to include(shown_name: "Adi", group: "Reed", time_factor: "1.25",
                                                   notes: "sits in front\nby the window")
    change.call({ "shown_name" => "" })
    expect(students.find(id, ada).shown_name).to eq("Ada")
    fill(id, "Ada Moss")
    expect(students.of_class(id).last.shown_name).to eq("Ada M")
    other_ada = students.of_class(id).last.id
    expect(ops::KeepStudent.new.change(account, id, other_ada, { "shown_name" => "ada" }).reason)
      .to eq("Somebody else in this class is shown as “ada”. Add a letter.")
    ops::KeepStudent.new.change(account, id, other_ada, { "shown_name" => "" })
    expect(students.find(id, other_ada).shown_name).to eq("Ada M")
  end

  describe "a session that is given to one" do
    let(:kestrel) { a_class("Kestrel", "Ada Lindqvist\nBo Marsh\nBo Moss") }

    def session(entry, **more)
      form = room_options(entry: entry, **more).to_document.transform_values { |value| value == true ? "1" : value }
      Roost::Operations::StartSession.new.call(account, kept_lesson(account), form.merge("class_id" => kestrel.to_s))
    end

    def join(row, name, **more) = Roost::Operations::JoinSession.new.call(row.code, name, **more)

    def seats(row) = Roost::Store::Seats.new.of(row.id).map { |seat| [seat.name, seat.student_id] }

    it "lets each of the list in once, however many press at the same moment, and nobody else" do
      row = session("list").value
      ada, bo, = students.of_class(kestrel)
      said = at_once((1..6).to_a) { join(row, nil, student_id: ada.id) }
      expect(said.count(&:ok?)).to eq(1)
      expect(said.find { |each| !each.ok? }.reason).to start_with("Somebody has joined under that name already.")
      stranger = students.of_class(a_class("Other", "Zeb Winslow")).first
      expect([join(row, nil, student_id: stranger.id), join(row, "Zeb"), join(row, nil)].map(&:reason).uniq)
        .to eq([Roost::Operations::ParticipantLookup::PICK])
      expect(join(row, "bo marsh")).to be_ok
      expect(seats(row)).to eq([["Ada", ada.id], [bo.shown_name, bo.id]])
      expect(moment(row).missing.map(&:name)).to eq(["Bo Moss"])
    end

    it "knows who types the name of one, and lets another of that name sit beside" do
      row = session("free").value
      ada = students.of_class(kestrel).first.id
      ["Ada", "ada lindqvist", "Bo", "Zeb"].each { |name| expect(join(row, name)).to be_ok }
      expect(seats(row).map(&:last)).to eq([ada, nil, students.of_class(kestrel)[1].id, nil])
    end

    it "stops a rude name, tells its teacher, and lets it in when she does; a name of the list always passes" do
      fill(kestrel, "Sexy Bell")
      row = session("free").value
      expect(join(row, "Sexy Bell")).to be_ok
      said = Array.new(2) { join(row, "b00bs").reason }
      expect(said.uniq).to eq(["That name can't go up on the class screen. Type your own name, or ask your teacher."])
      expect(Roost::Core::Session::Views.desk(moment(row)).stopped).to eq(["b00bs"])
      expect([Roost::Operations::AllowName.new.call(other, row.id, "b00bs"), join(row, "b00bs").ok?]).to eq([nil, false])
      expect(Roost::Operations::AllowName.new.call(account, row.id, "b00bs")).to eq("b00bs")
      expect(join(row, "B00bs")).to be_ok
      expect(moment(row).stopped).to eq([])
    end

    it "keeps a device out for a while whose seat was taken out, and no other" do
      row = session("free").value
      devices = %w[a b].map { |letter| letter * 32 }
      token = join(row, "Imp", device: devices[0]).value
      Roost::Operations::RemoveSeat.new.call(account, row.id, Roost::Store::Seats.new.by_token(token)[:id])
      expect(join(row, "Angel", device: devices[0]).reason).to start_with("Your teacher has removed you from this session.")
      expect([join(row, "Bo", device: devices[1]), join(row, "Cleo"),
              join(row, "Dev", device: "x' OR 1=1")].map(&:ok?)).to all(be(true))
      database[:seats].update(removed_at: Sequel.lit("removed_at - interval '11 minutes'"))
      expect(join(row, "Angel", device: devices[0])).to be_ok
    end

    it "keeps the latest stopped names of each device, so that one hides no other's, those of one beside each other" do
      row = session("free").value
      by = lambda do |device, name|
        Roost::Operations::JoinSession.new.call(row.code, name, device: device)
      end
      30.times { |number| by.call("d" * 40, "fuck #{number}") }
      by.call("e" * 40, "shithead")
      by.call("d" * 40, "fuck you")
      stopped = moment(row).stopped
      expect([stopped.length, stopped.last, stopped[-2]]).to eq([6, "shithead", "fuck you"])
    end

    it "lets new devices in by hand where the teacher wants to, and those that were here without" do
      row = session("free").value
      call = ->(name, device) { Roost::Operations::JoinSession.new.call(row.code, name, device: device) }
      call.call("Ada", "a" * 40)
      command(row, "by_hand")
      said = [call.call("Ada", "a" * 40).ok?, call.call("Bo", "b" * 40).reason]
      expect(said).to eq([true, Roost::Operations::ParticipantLookup::BY_HAND])
      expect(moment(row).stopped).to eq(["bo"])
      Roost::Operations::AllowName.new.call(row.account_id, row.id, "bo")
      expect(call.call("Bo", "b" * 40)).to be_ok
      command(row, "by_themselves")
      expect(call.call("Cleo", "c" * 40)).to be_ok
    end

    it "gives a made-up name, and asks for one thing more" do
      row = session("made_up", extra: "Table").value
      expect(join(row, nil).reason).to eq("“Table” is missing. Type it, too.")
      5.times { |number| expect(join(row, "Rude Word", extra: number.to_s)).to be_ok }
      expect(seats(row).map(&:first).uniq.length).to eq(5)
      expect(seats(row).to_s).not_to include("Rude")
      expect(Roost::Store::Seats.new.of(row.id).map(&:extra)).to eq(%w[0 1 2 3 4])
      expect([moment(row).missing, moment(row).roll]).to eq([[], []]) # nobody can be said to be missing
    end

    it "says what is missing before it starts" do
      expect(Roost::Operations::StartSession.new.call(account, kept_lesson(account), { "entry" => "list" }).reason)
        .to start_with("Choose a class")
      form = { "entry" => "list", "class_id" => a_class("Empty").to_s }
      expect(Roost::Operations::StartSession.new.call(account, kept_lesson(account),
                                                      form).reason).to start_with("Nobody is in that class")
      foreign = { "class_id" => a_class("Theirs", owner: other).to_s }
      expect(Roost::Operations::StartSession.new.call(account, kept_lesson(account),
                                                      foreign).reason).to start_with("That class isn't here")
    end

    it "hears at once who comes into its class, or leaves it" do
      row = session("list").value
      told = []
      allow(Roost::Live::Bus).to receive(:announce) { |id, scope| told << [id, scope] }
      fill(kestrel, "Cleo Okafor")
      ops::KeepStudent.new.take_out(account, kestrel, students.of_class(kestrel).first.id)
      expect(told).to eq([[row.id, :people]] * 2)
      expect(moment(row).missing.map(&:name)).to eq(["Bo Marsh", "Bo Moss", "Cleo Okafor"])
    end

    it "goes on when its class is deleted, and keeps who was not there in the results and the CSV" do
      row = session("list").value
      join(row, "Ada")
      command(row, "begin")
      ops::KeepClass.new.delete(account, kestrel)
      expect(join(row, "Bo Moss")).to be_ok
      command(row, "end")
      sheet = Roost::Exchange::ResultsSheet.new(Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(row))).to_csv
      expect(sheet.lines.grep(/absent/).map { |line| line.split(",")[3] }).to eq(["Bo Marsh"])
    end
  end
end
