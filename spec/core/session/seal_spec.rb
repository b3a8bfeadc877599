# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Seal do
  subject(:seal) { described_class.new("secret") }

  it "is read back by whoever holds the secret, and by nobody else" do
    [[1, "s1", 0], [12, "s3", 4], [(2**62) - 1, "s" * 60, 65_535]].each do |seat_id, slide_id, post|
      name = seal.close(seat_id, slide_id, post)
      opened = seal.open(name)
      expect([opened.seat_id, opened.post, opened.on?(slide_id), opened.on?("s2")]).to eq([seat_id, post, true, false])
      expect(name).to eq(described_class.new("secret").close(seat_id, slide_id, post))
      expect(described_class.new("another").open(name)&.on?(slide_id)).to be_falsey
    end
  end

  it "gives names from which neither the seat nor what belongs together can be seen" do
    names = [1, 2, 3].product(%w[s1 s2], (0..9).to_a).map { |each| seal.close(*each) }
    expect(names).to all(match(described_class::SHAPE))
    # Six characters are 36 bits: that two of 60 agree in them by chance is one in ten million.
    [0..5, 8..13, 15..20].each { |part| expect(names.map { |name| name[part] }.uniq.length).to eq(names.length) }
  end

  it "takes nothing else for a name" do
    [nil, 7, "", "a" * 21, "a" * 23, "#{"a" * 21}\n", "#{"a" * 21}é", ["a" * 22]].each do |other|
      expect(seal.open(other)).to be_nil
    end
  end
end
