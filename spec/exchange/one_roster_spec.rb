# frozen_string_literal: true

RSpec.describe Roost::Exchange::OneRoster do
  people = { "u1" => %w[Ada Lindqvist] }
  let(:whole) { { people: people, classes: { "c1" => ["Kestrel"] }, places: [%w[c1 u1]] } }

  def reason(file) = described_class.overview(file.path).reason

  def file(bytes) = Tempfile.create("package").tap { |file| file.binmode && file.write(bytes) && file.rewind }

  def with_users(rows) = roster(files: { "users" => rows })

  { "that is no zip" => ["could not be read as a OneRoster package", ->(spec) { spec.file("PK?") }],
    "without a manifest" => ["has no manifest.csv in it", ->(spec) { spec.roster(files: { "manifest" => nil }) }],
    "of another version" => ["is of OneRoster 1.0.", ->(spec) { spec.roster(manifest: { "oneroster.version" => "1.0" }) }],
    "without a file that it says it has" => ["says that it has users.csv", ->(spec) { spec.with_users(nil) }],
    "without enrolments" => ["has no enrollments in it", ->(spec) { spec.roster(manifest: { "file.enrollments" => "absent" }) }],
    "without a column" => ["users.csv has no column givenName", ->(spec) { spec.with_users([%w[sourcedId familyName]]) }],
    "that is no CSV" => ["has a users.csv that could not be read", ->(spec) { spec.with_users("a,\"b\nc") }],
    "that is no UTF-8" => ["has a users.csv that could not be read", ->(spec) { spec.with_users("sourcedId\n\xE9\n".b) }],
    "of too many rows" => ["has more than 60 000 rows in users.csv",
                           ->(spec) { spec.with_users("sourcedId,givenName,familyName\n#{"u,a,b\n" * 60_001}") }],
    "that unpacks to 200 MB" => ["unpacks to more than 60 MB", ->(spec) { spec.with_users("0" * 200_000_000) }] }
    .each do |what, (said, file)|
    it "refuses a package #{what} in a sentence" do
      expect(reason(file.call(self))).to start_with(said)
    end
  end

  it "refuses what says it is small and is not" do
    bytes = File.binread(roster(**whole, manifest: { "file.courses" => "bulk" }, files: { "courses" => "0" * 100_000_000 }).path)
    size = [100_000_000].pack("V")
    expect(bytes).to include(size)
    expect(reason(file(bytes.gsub(size, [10].pack("V"))))).to eq("has a courses.csv that could not be read. Export it again.")
  end

  it "names the rows whose references lead nowhere, and reads the rest" do
    read = described_class.overview(roster(**whole, places: [%w[c1 u1], %w[c1 u7], %w[c7 u1], ["", "u1"]]).path).value
    expect(read.groups.map(&:students)).to eq([1])
    expect(read.reasons).to eq(["enrollments.csv, row 3, is of somebody who isn't in users.csv.",
                                "enrollments.csv, row 4, is for a class that isn't in classes.csv.",
                                "enrollments.csv, row 5, does not say who or where."])
  end

  it "takes an id once" do
    rows = [%w[sourcedId givenName familyName], %w[u1 Ada Lindqvist], %w[u1 Bo Marsh], ["", "Cleo", "Okafor"]]
    file = roster(**whole, files: { "users" => rows })
    expect(described_class.overview(file.path).value.reasons)
      .to eq(["users.csv, row 3, has the sourcedId of another row.", "users.csv, row 4, has no sourcedId."])
  end

  it "reads the subject out of the course, the year out of the term, and the name that is preferred" do
    file = roster(**whole, people: { "u1" => ["Adelaide", "Lindqvist", nil, nil, nil, "Ada"] },
                           manifest: { "file.courses" => "bulk", "file.academicSessions" => "bulk" },
                           files: { "courses" => [%w[sourcedId title], %w[k1 Science]],
                                    "academicSessions" => [%w[sourcedId schoolYear], %w[t1 2027]] })
    told = described_class.chosen(file.path, ["c1"]).value.told.first
    expect([told.group.subject, told.group.year, told.students.map { |each| [each.given, each.family] }])
      .to eq(["Science", "2026/27", [%w[Ada Lindqvist]]])
  end

  it "finds the files in a folder of the zip, and none in what another system left there" do
    inner = roster(**whole)
    files = Zip::File.open(inner.path) { |zip| zip.entries.to_h { |entry| [entry.name, entry.get_input_stream.read] } }
    file = zipped(files.transform_keys { |name| "export/#{name.delete_suffix(".csv")}" }.merge("__MACOSX/users" => "x"))
    expect(described_class.overview(file.path).value.groups.map(&:title)).to eq(["Kestrel"])
  end
end
