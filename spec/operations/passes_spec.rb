# frozen_string_literal: true

RSpec.describe "Student passes" do
  ops = Roost::Operations
  let(:account) { teacher }
  let(:kestrel) { ops::KeepClass.new.create(account, { "name" => "Kestrel" }).value }
  let(:passes) { ops::StudentPasses.new.of_class(account, kestrel) }

  before { fill(kestrel, "Ada Lindqvist", "Bo Marsh") }

  def fill(id, *names)
    rows = names.each_with_index.map { |name, place| [place + 1, { name: name }] }
    Roost::Operations::FillClass.new.fill(account, id, Roost::Core::ClassList.read(rows).value)
  end

  def session(entry = "pass", class_id: kestrel)
    form = { "class_id" => class_id.to_s, "entry" => entry }
    Roost::Operations::StartSession.new.call(account, kept_lesson(account), form).value
  end

  def enter(pass, row) = Roost::Operations::EnterByPass.new.call(pass, row.id)

  it "are made once, for each in the class, and anew where one was lost" do
    expect(passes.map { |student, pass| [student.name, pass.length] }).to eq([["Ada Lindqvist", 12], ["Bo Marsh", 12]])
    expect(ops::StudentPasses.new.of_class(account, kestrel)).to eq(passes)
    ada, old = passes.first
    renewed = ops::StudentPasses.new.renew(account, kestrel, ada.id)
    expect(ops::EnterByPass.student(renewed).value.name).to eq("Ada Lindqvist")
    expect(ops::EnterByPass.student(old).reason).to start_with("That pass isn't known here.")
    other = teacher(email: "moss@heronsgate.example")
    expect([ops::StudentPasses.new.of_class(other, kestrel), ops::StudentPasses.new.renew(other, kestrel, ada.id),
            ops::MakeExport.new.start(other, "class_passes", kestrel)]).to eq([nil] * 3)
  end

  it "let a student in, in whatever case they are typed, and on another device to the same seat" do
    row = session
    _ada, pass = passes.first
    expect(Roost::Operations::JoinSession.new.call(row.code, "Ada").ok?).to be(false)
    first = enter(pass.downcase.scan(/..../).join(" "), row).value
    command(row, "begin")
    seat = Roost::Store::Seats.new.by_token(first)
    save(row, seat, "s4", { "text" => ["By the stars"] })
    second = enter(pass, row).value
    expect([first, second].map { |token| Roost::Store::Seats.new.by_token(token)&.fetch(:id) }).to eq([nil, seat[:id]])
    expect(moment(row).seats.map(&:name)).to eq(["Ada"])
  end

  it "open no lesson of another class, none that has ended, and nothing once the student is deleted" do
    ada, pass = passes.first
    row = session
    other = ops::KeepClass.new.create(account, { "name" => "Avocet" }).value
    fill(other, "Zeb Winslow")
    expect(enter(pass, session(class_id: other)).reason).to start_with("That lesson isn't for your class")
    command(row, "end")
    expect(enter(pass, row).reason).to start_with("That lesson isn't for your class, or it has ended.")
    ops::KeepStudent.new.delete(account, kestrel, ada.id)
    expect(enter(pass, row).reason).to start_with("That pass isn't known here.")
  end

  it "do not bring back at once who was taken out" do
    row = session
    _ada, pass = passes.first
    seat = Roost::Store::Seats.new.by_token(enter(pass, row).value)
    ops::RemoveSeat.new.call(account, row.id, seat[:id])
    expect(enter(pass, row).reason).to start_with("Your teacher has removed you from this session.")
    expect(enter(passes.last.last, row)).to be_ok
  end

  it "are printed as cards, eight to a page" do
    fill(kestrel, *Array.new(7) { |number| "Student N#{number} & <Co>" })
    ops::MakeExport.new.start(account, "class_passes", kestrel)
    sheets = Roost::Store::Exports.new
    id = sheets.of(account, "class_passes", kestrel).id
    ops::MakeExport.new.call(id)
    expect(`pdfinfo #{sheets.path(id)}`).to match(/^Pages:\s+2$/)
    text = `pdftotext -layout #{sheets.path(id)} -`
    expect(text).to include("Ada Lindqvist", "Student N6 & <Co>", Roost::Core::StudentPass.spoken(passes.first.last))
  end

  it "are no code that anybody reads out, nor the other way round" do
    expect(Roost::Core::StudentPass.read("CDF GHJ")).to be_nil
    expect(Roost::Core::JoinCode.read(passes.first.last)).to be_nil
    expect(Array.new(50) { Roost::Core::StudentPass.make(SecureRandom) }.uniq.length).to eq(50)
  end
end
