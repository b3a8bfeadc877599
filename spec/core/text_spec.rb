# frozen_string_literal: true

RSpec.describe Roost::Core::Text do
  def read(raw, **opts) = described_class.read(raw, limit: 50, what: "It", **opts)

  it "never gives text that is longer, untrimmed, or has control characters" do
    PropCheck.forall(PropCheck::Generators.string) do |raw|
      reading = read(raw)
      next expect(reading.reason).to be_a(String) unless reading.ok?

      expect(reading.value.length).to be <= 50
      expect(reading.value).to eq(reading.value.strip)
      expect(reading.value).not_to match(described_class::CONTROLS)
    end
  end

  it "keeps line ends as one kind, or makes one line of it" do
    expect(read("a\r\nb\rc").value).to eq("a\nb\nc")
    expect(read("a\n  b", lines: false).value).to eq("a b")
  end

  it "takes as long for marks piled on one letter as for letters" do
    %w[ạ́ ̣́ ab́].each do |pattern|
      short, long = [200, 400].map do |times|
        Counting.steps { described_class.read("a#{pattern * times}", limit: 2_000, what: "It") }
      end
      expect(long).to be < short * 2.5
    end
    expect(read("e\u0301\u0323\u0302\u0308\u0331\u0330").value.unicode_normalize(:nfd).length).to eq(5)
  end

  it "looks at the length before anything else" do
    ["x" * 401, "\u0301" * 201, "\u{1F426}" * 101].each do |long|
      expect(long).not_to receive(:dup) if long.bytesize > 400
      expect(read(long).reason).to start_with("It is too long")
    end
  end

  it "counts the words of a reader" do
    expect(described_class.words("Why don't swallows stay? 3 of 4 – well-fed ones do.")).to eq(10)
  end
end

RSpec.describe Roost::Core::Session::Options do
  it "falls back on the default for what it does not understand, and survives being written down" do
    read = described_class.read({ "speed_share" => "9", "may_change" => "yes" })
    expect([read.speed_share, read.may_change, read.speed]).to eq(["0.25", false, 1/4r])
    expect(described_class.from_document(read.to_document)).to eq(read)
    expect(described_class.from_document({})).to eq(room_options)
  end
end
