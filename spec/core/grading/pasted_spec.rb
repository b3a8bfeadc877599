# frozen_string_literal: true

RSpec.describe Roost::Core::Grading::Pasted do
  def student(id, name, number = "", shown: name.split.first)
    Roost::Core::Student.new(id: id, name: name, family: name.split.last, shown_name: shown, number: number)
  end

  let(:students) { [student(1, "Ada Holm", "17"), student(2, "Bo Lind", "18"), student(3, "Bo Marsh", "19", shown: "Bo M")] }

  def read(text) = described_class.read(text, students).value

  it "finds students by name in either order, by number, and by what others see" do
    found = read("Name\tPoints\nHolm, Ada\t7,5\n18;8\nBo M  excused")
    expect(found.typed).to eq({ 1 => "7,5", 2 => "8", 3 => "excused" })
    expect(found.left).to eq([["Name\tPoints", described_class::NOTHING]])
    expect(read("19\tBo Marsh\t3").typed).to eq({ 3 => "3" })
    expect(read("Ada Holm, 4.5").typed).to eq({ 1 => "4.5" })
  end

  it "takes points alone in the order of the class" do
    expect(read("1\n2\n3").typed).to eq({ 1 => "1", 2 => "2", 3 => "3" })
    expect(read("1\n2\n3\n4").left.map(&:last)).to eq([described_class::NOBODY])
  end

  it "says of every other line why it was not used" do
    twins = [student(1, "Ada Holm"), student(2, "Ada Holm", shown: "Ada H")]
    expect(read("Eve Nobody\t3\nAda Holm\t1\nAda\t2\nBo Lind").left.map(&:last))
      .to eq([described_class::NOBODY, described_class::AGAIN, described_class::NOTHING])
    expect(described_class.read("Ada Holm\t3", twins).value.left.map(&:last)).to eq([described_class::SEVERAL])
  end

  it "is bounded" do
    expect(described_class.read("a\t1\n" * 501, students).reason).to eq(described_class::TOO_MANY)
    expect(described_class.read("a" * 200_000, students).ok?).to be(false)
    expect(described_class.read({ "a" => 1 }, students).ok?).to be(false)
  end
end
