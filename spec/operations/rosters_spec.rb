# frozen_string_literal: true

RSpec.describe "Classes from the school's own records" do
  let(:account) { teacher }
  let(:other) { teacher(email: "moss@heronsgate.example") }
  let(:students) { Roost::Store::Students.new }
  let(:people) do
    { "u1" => %w[Ada Lindqvist 701], "u2" => %w[Bo Marsh 702], "u9" => ["Edda", "Falk", nil, nil, "falk@heronsgate.example"] }
  end
  let(:places) { [%w[c1 u1], %w[c1 u2], %w[c1 u9 teacher]] }

  before { |example| read_rosters_here unless example.metadata[:apart] }

  def bringing = Roost::Operations::BringRoster.new

  def package(**changed) = roster(people: people, classes: { "c1" => ["Year 7 Kestrel"] }, places: places, **changed)

  def bring(file, ids = ["c1"], owner: account)
    bringing.call(owner, bringing.look_at(owner, file).value.ticket, ids)
  end

  def compare(file, ids = ["c1"]) = bringing.compare(account, bringing.look_at(account, file).value.ticket, ids)

  def kestrel = Roost::Store::Classes.new.all(account).find { |row| row.name == "Year 7 Kestrel" }

  def names(id = kestrel.id) = students.of_class(id).map(&:name)

  # What goes out of the class.
  def sent(name: "Edda Falk", email: "e@h.example", school: "Heronsgate")
    all = students.of_class(kestrel.id)
    out = Roost::Exchange::OneRoster::Sent.new(row: kestrel, students: all, people: students.records(all.map(&:id)),
                                               details: Roost::Store::Classes.new.records(kestrel.id))
    bytes = Roost::Exchange::OneRoster.zip([out], school: school, teacher: { id: 1, name: name, email: email })
    Tempfile.create("out").tap { |each| each.binmode && each.write(bytes) && each.rewind }
  end

  def tables(file)
    Zip::File.open(file.path) do |zip|
      zip.entries.to_h do |entry|
        [entry.name, CSV.parse(entry.get_input_stream.read.force_encoding("UTF-8"), headers: true)]
      end
    end
  end

  it "come in once they have been looked at, and the same package again changes nothing", :apart do
    look = bringing.look_at(account, package).value
    expect(look.overview.groups.map { |group| [group.title, group.students, group.teachers] })
      .to eq([["Year 7 Kestrel", 2, ["falk@heronsgate.example"]]])
    expect(compare(package).value.classes.map { |each| [each.row, each.found.roll.of(:new).length] }).to eq([[nil, 2]])
    expect(kestrel).to be_nil
    expect(bring(package)).to be_ok
    before = students.of_class(kestrel.id)
    expect(before.map { |each| [each.name, each.number, each.shown_name] })
      .to eq([["Ada Lindqvist", "701", "Ada"], ["Bo Marsh", "702", "Bo"]])
    expect(compare(package).value).to be_empty
    bring(package)
    expect([students.of_class(kestrel.id), Roost::Store::Classes.new.all(account).length]).to eq([before, 1])
  end

  it "show who came, who is called otherwise and who left; who was added by hand stays" do
    bring(package)
    fill = Roost::Operations::FillClass.new
    fill.call(account, kestrel.id, fill.look_at_text(account, kestrel.id, "Cleo Okafor").value.ticket, sheet: false)
    file = package(people: { "u1" => %w[Ada Holm 701], "u3" => %w[Dev Raman 703] }, places: [%w[c1 u1], %w[c1 u3]])
    found = compare(file).value.classes.first.found
    expect(found.leaving.map(&:name)).to eq(["Bo Marsh"])
    expect(found.roll.rows.map { |row| [row.entry.name, row.state] }).to eq([["Ada Holm", :changed], ["Dev Raman", :new]])
    bring(file)
    expect(names).to eq(["Ada Holm", "Cleo Okafor", "Dev Raman"])
  end

  it "make one person of who is in two classes, also when both are new, and of who is with a colleague" do
    file = roster(people: people, classes: { "c1" => ["Year 7 Kestrel"], "c2" => ["Chess"] }, places: [*places, %w[c2 u1]])
    bring(file, %w[c1 c2])
    bring(file, %w[c2], owner: other)
    chess = [account, other].map { |id| Roost::Store::Classes.new.of_roster(id, ["c2"]).fetch("c2").id }
    expect(chess.uniq.length).to eq(2)
    expect([*chess, kestrel.id].map { |id| students.of_class(id).first.id }.uniq.length).to eq(1)
  end

  it "don't let a colleague change what is known of somebody else's student" do
    bring(package)
    bring(roster(people: { "u1" => %w[Adda Wrong 9] }, classes: { "c9" => ["Mine"] }, places: [%w[c9 u1]]), ["c9"], owner: other)
    expect(students.of_class(kestrel.id).first.to_h).to include(name: "Ada Lindqvist", number: "701")
  end

  it "are taken for the class of that name that was made by hand, and its students for themselves" do
    id = Roost::Operations::KeepClass.new.create(account, { "name" => "year 7 kestrel" }).value
    fill = Roost::Operations::FillClass.new
    fill.call(account, id, fill.look_at_text(account, id, "Ada Lindqvist\nCleo Okafor").value.ticket, sheet: false)
    ada = students.of_class(id).first.id
    bring(package)
    expect(students.of_class(id).map { |each| [each.name, each.rostered] })
      .to eq([["Ada Lindqvist", true], ["Bo Marsh", true], ["Cleo Okafor", false]])
    expect(students.of_class(id).first.id).to eq(ada)
    expect(students.of_roster(["u1"]).map(&:id)).to eq([ada])
  end

  it "bring somebody anew who was deleted, who can still be brought back" do
    bring(package)
    ada = students.of_class(kestrel.id).first.id
    Roost::Operations::KeepStudent.new.delete(account, kestrel.id, ada)
    bring(package)
    expect(names).to eq(["Ada Lindqvist", "Bo Marsh"])
    Roost::Operations::KeepStudent.new.delete(account, kestrel.id, ada, deleted: false)
    expect(names).to eq(["Ada Lindqvist", "Ada Lindqvist", "Bo Marsh"])
    expect(students.of_class(kestrel.id).map(&:sourced_id).uniq.length).to eq(3)
  end

  it "keep apart two of one name whom the records know as two" do
    bring(package(people: { "u1" => %w[Ada Lindqvist], "u2" => %w[Ada Lindqvist] }))
    expect(students.of_class(kestrel.id).map(&:sourced_id)).to match_array(%w[u1 u2])
    expect(students.of_class(kestrel.id).map(&:shown_name).uniq.length).to eq(2)
  end

  it "take nobody whom the records know for somebody else of that name or number" do
    bring(package)
    ada = students.of_roster(["u1"]).first
    places = [%w[c1 u7], %w[c1 u2]]
    bring(package(people: people.except("u1").merge("u7" => %w[Ada Lindqvist 701]), places: places))
    expect(students.of_class(kestrel.id).map { |student| [student.name, student.sourced_id] })
      .to eq([["Ada Lindqvist", "u7"], ["Bo Marsh", "u2"]])
    expect(students.of_roster(["u1"]).map(&:id)).to eq([ada.id])
  end

  describe "when they tell only what has changed" do
    before { bring(package) }

    def changes(**what) = roster(how: "delta", **what)

    it "take in, change and take out those alone" do
      file = changes(people: { "u3" => %w[Dev Raman], "u1" => %w[Ada Holm 701 active] },
                     places: [%w[c1 u3 student active], %w[c1 u2 student tobedeleted]])
      found = compare(file).value
      expect(found.people.map { |student, fields| [student.name, fields] })
        .to eq([["Ada Lindqvist", { name: "Ada Holm", family: "Holm" }]])
      bring(file)
      expect(names).to eq(["Ada Holm", "Dev Raman"])
    end

    it "know by their ids alone those who are here, and say of others that they don't" do
      ada = students.of_class(kestrel.id).first.id
      Roost::Operations::KeepStudent.new.take_out(account, kestrel.id, ada)
      file = changes(places: [%w[c1 u1 student active], %w[c1 u77 student active]])
      expect(compare(file).value.classes.first.found.roll.rows.map { |row| [row.state, row.entry.reason] })
        .to eq([[:enters, nil], [:refused, "This person is neither in users.csv nor known here."]])
      bring(file)
      expect(students.of_class(kestrel.id).map(&:id)).to include(ada)
    end

    it "take somebody who is gone out of all classes, without a class being named" do
      bring(changes(people: { "u2" => %w[Bo Marsh 702 tobedeleted] }), [])
      expect(names).to eq(["Ada Lindqvist"])
    end

    it "tell of somebody's user name without a class" do
      bring(
        changes(files: { "users" => [%w[sourcedId status givenName familyName identifier username],
                                     %w[u1 active Ada Lindqvist 701 adal]] }), []
      )
      expect(tables(sent)["users.csv"].map { |row| row["username"] }).to include("adal")
    end

    it "name only the teachers who come and go; the others stay and go out again" do
      moss = ["Hal", "Moss", nil, "active", "moss@heronsgate.example"]
      emails = lambda do
        tables(sent(email: "falk@heronsgate.example"))["users.csv"].select { |row| row["email"] }.map { |row| row["email"] }
      end
      bring(changes(people: { "u8" => moss }, places: [%w[c1 u8 teacher active]]))
      expect(emails.call).to match_array(%w[falk@heronsgate.example moss@heronsgate.example])
      bring(changes(people: { "u8" => moss }, places: [%w[c1 u8 teacher tobedeleted]]))
      expect(emails.call).to eq(["falk@heronsgate.example"])
    end

    it "put a class away that is no more" do
      file = changes(classes: { "c1" => ["Year 7 Kestrel", "tobedeleted"] })
      expect(compare(file).value.classes.map(&:gone)).to eq([true])
      bring(file)
      expect(kestrel).to be_nil
      expect(Roost::Store::Classes.new.all(account, archived: true).map(&:students)).to eq([2])
      expect(compare(file).value).to be_empty
    end

    it "can't make a class that they only refer to" do
      look = bringing.look_at(account, changes(places: [%w[c5 u1 student active]])).value
      expect(bringing.compare(account, look.ticket, ["c5"]).reason).to eq("Choose at least one class.")
    end
  end

  it "leave out who left before today, and whose row says so" do
    bring(package(places: [%w[c1 u1 student] + [nil, "2020-07-01"], %w[c1 u2]]))
    expect(names).to eq(["Bo Marsh"])
  end

  it "are somebody's own: a ticket is no good to others, nor twice" do
    ticket = bringing.look_at(account, package).value.ticket
    expect(bringing.compare(other, ticket, ["c1"]).reason).to start_with("That file isn't waiting here any more.")
    expect(Array.new(2) { bringing.call(account, ticket, ["c1"]).ok? }).to eq([true, false])
  end

  it "bring nothing at all when one class is too large" do
    many = (1..301).to_h { |at| ["v#{at}", ["Bird", "Number #{at}"]] }
    file = roster(people: people.merge(many), classes: { "c1" => ["Year 7 Kestrel"], "c2" => ["Everybody"] },
                  places: [*places, *many.keys.map { |id| ["c2", id] }])
    expect(bring(file, %w[c1 c2]).reason).to eq("“Everybody” would have 301 students; a class has at most 300 here.")
    expect(Roost::Store::Classes.new.all(account)).to eq([])
  end

  it "go out as they came in, and come back as the same" do
    bring(package)
    file = sent
    back = compare(file).value
    expect(back.classes.map { |each| [each.found.empty?, each.gone] } + back.people + back.leavers).to eq([[true, false]])
    before = [students.of_class(kestrel.id), kestrel]
    bring(file)
    expect([students.of_class(kestrel.id), kestrel]).to eq(before)
    expect(compare(file).value).to be_empty
    tables = tables(file)
    expect(tables["manifest.csv"].to_h(&:fields))
      .to include("oneroster.version" => "1.2", "file.users" => "bulk", "file.results" => "absent")
    expect(tables["enrollments.csv"].map { |row| row["role"] }.tally).to eq("student" => 2, "teacher" => 2)
    ids = tables.to_h { |name, rows| [name.delete_suffix(".csv"), rows.map { |row| row["sourcedId"] }] }
    expect(tables["enrollments.csv"].map { |row| row["userSourcedId"] } - ids["users"]).to eq([])
    expect(tables["classes.csv"].map { |row| row.to_h.values_at("courseSourcedId", "schoolSourcedId", "termSourcedIds") })
      .to eq([[ids["courses"].first, ids["orgs"].first, ids["academicSessions"].first]])
  end

  it "keep for other programs what they said of terms, course, user names and teachers, and no passwords" do
    rows = { "users" => [%w[sourcedId status givenName familyName username grades password email phone preferredGivenName],
                         %w[u1 active Adelheid Lindqvist alindqvist 07 secret-1 ada@h.example 0123 Ada],
                         %w[u9 active Edda Falk efalk] + [nil, "secret-2", "falk@heronsgate.example"]],
             "classes" => [%w[sourcedId title grades courseSourcedId classCode classType schoolSourcedId termSourcedIds subjects],
                           %w[c1 Kestrel 07 k1 7K homeroom o1] + ["t1,t2", "Biology,Ecology"]],
             "courses" => [%w[sourcedId title courseCode], %w[k1 Life BIO-7]], "orgs" => [%w[sourcedId name], %w[o1 Heronsgate]],
             "academicSessions" => [%w[sourcedId title type startDate endDate schoolYear],
                                    %w[t1 Autumn term 2026-09-01 2026-12-20 2027], %w[t2 Spring term 2027-01-04 2027-04-01 2027]],
             "enrollments" => [%w[classSourcedId userSourcedId role], %w[c1 u1 student], %w[c1 u9 teacher]] }
    named = %w[orgs courses academicSessions].to_h { |name| ["file.#{name}", "bulk"] }
    package = -> { roster(manifest: named, files: rows) }
    bring(package.call)
    expect(compare(package.call).value).to be_empty
    Roost::Store::Classes.new.change(Roost::Store::Classes.new.of_roster(account, ["c1"])["c1"].id, name: "Year 7 Kestrel")
    tables = tables(sent(email: "falk@heronsgate.example"))
    theirs = ->(name) { tables["#{name}.csv"].map { |row| rows.fetch(name).first.map { |column| row[column] } } }
    expect(theirs["academicSessions"]).to eq(rows["academicSessions"].drop(1))
    expect(theirs["courses"]).to eq([%w[k1 Life BIO-7]])
    expect(theirs["classes"]).to eq([["c1", "Year 7 Kestrel", *rows["classes"].last.drop(2)]])
    columns = %w[sourcedId givenName familyName username grades preferredGivenName]
    expect(tables["users.csv"].map { |row| row.to_h.values_at(*columns) })
      .to match_array([["u9", "Edda", "Falk", "efalk", nil, nil], %w[u1 Adelheid Lindqvist alindqvist 07 Ada]])
    expect(tables["enrollments.csv"].map { |row| row.to_h.values_at("userSourcedId", "role") })
      .to match_array([%w[u9 teacher], %w[u1 student]])
    expect(tables.values.flat_map { |table| table.map(&:fields) }.flatten & %w[secret-1 secret-2 ada@h.example 0123]).to eq([])
    rows["users"][1][4] = "ada.l"
    changed = compare(package.call).value
    expect([changed.empty?, changed.classes.first.found.empty?]).to eq([false, true])
    bring(package.call)
    expect(tables(sent)["users.csv"].map { |row| row["username"] }).to include("ada.l")
  end

  it "leave out who begins later, and leave in who is in the class already" do
    later = (Date.today + 40).iso8601
    bring(package)
    places = [%w[c1 u2], %w[c1 u3], %w[c1 u1]]
    enrolled = [%w[classSourcedId userSourcedId role beginDate endDate],
                *places.map { |place| [*place, "student", place.last == "u2" ? nil : later, nil] }]
    file = package(people: people.merge("u3" => %w[Dev Raman]), files: { "enrollments" => enrolled })
    expect(compare(file).value.classes.first.told.coming.map { |each| [each.given, each.begins] })
      .to match_array([["Dev", later], ["Ada", later]])
    bring(file)
    expect(names).to eq(["Ada Lindqvist", "Bo Marsh"])
    enrolled.each { |row| row[3] = Date.today.iso8601 if row[3] == later }
    bring(package(people: people.merge("u3" => %w[Dev Raman]), files: { "enrollments" => enrolled }))
    expect(names).to eq(["Ada Lindqvist", "Bo Marsh", "Dev Raman"])
  end

  describe "with a name that a teacher typed" do
    let(:typed) { Roost::Operations::KeepClass.new.create(account, { "name" => "Chess" }).value }
    let(:ticket) { bringing.look_at(account, package).value.ticket }

    def type(names, class_id = typed)
      fill = Roost::Operations::FillClass.new
      fill.call(account, class_id, fill.look_at_text(account, class_id, names).value.ticket, sheet: false)
    end

    def people_of(name) = students.known(account).select { |student| student.name == name }

    before { type("Ada Lindqvist") }

    it "ask whether it is the same person; in another class it isn't unless she says so" do
      found = compare(package).value
      expect(found.namesakes.map { |each| [each.student.name, each.same, each.places.map(&:last)] })
        .to eq([["Ada Lindqvist", false, ["Chess"]]])
      bring(package)
      expect(people_of("Ada Lindqvist").length).to eq(2)
    end

    it "are that student where she says so" do
      bringing.call(account, ticket, ["c1"], same: ["u1"])
      expect(people_of("Ada Lindqvist").map { |student| [student.sourced_id, students.classes_of(student.id).length] })
        .to eq([["u1", 2]])
    end

    it "are somebody else of the same class where she says so, and the one she typed stays" do
      id = Roost::Operations::KeepClass.new.create(account, { "name" => "Year 7 Kestrel" }).value
      type("Bo Marsh", id)
      expect(compare(package).value.namesakes.map { |each| [each.student.name, each.same] })
        .to match_array([["Ada Lindqvist", false], ["Bo Marsh", true]])
      bringing.call(account, ticket, ["c1"], same: [])
      expect(names).to eq(["Ada Lindqvist", "Bo Marsh", "Bo Marsh"])
    end

    it "are taken for that student by the number" do
      type("Ada Lindqvist\t701")
      expect(compare(package).value.namesakes).to eq([])
    end
  end

  it "go out with no cell that a spreadsheet would run, and come back as they were" do
    bring(roster(people: { "p1" => ["=HYPERLINK(A1)", "+Fen", "@7"] }, classes: { "c1" => ["Year 7 Kestrel"] },
                 places: [%w[c1 p1]]))
    before = students.of_class(kestrel.id)
    file = sent(name: "-Edda Falk", school: "=Heronsgate")
    Zip::File.open(file.path) do |zip|
      cells = zip.entries.flat_map { |entry| CSV.parse(entry.get_input_stream.read.force_encoding("UTF-8")).flatten.compact }
      expect(cells.grep(/\A[=+@]|\A-(?!\d)/)).to eq([])
      expect(cells.grep(/\A'/)).not_to be_empty
    end
    expect(compare(file).value.classes.map { |each| each.found.empty? }).to eq([true])
    bring(file)
    expect(students.of_class(kestrel.id)).to eq(before)
  end
end
