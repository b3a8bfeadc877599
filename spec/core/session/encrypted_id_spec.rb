# frozen_string_literal: true

RSpec.describe Roost::Core::Session::EncryptedId do
  subject(:ids) { described_class.new("secret") }

  it "is read back by whoever holds the secret, and by nobody else" do
    [[1, "s1", 0, 0], [12, "s3", 4, 1], [(2**48) - 1, "s" * 60, 65_535, 65_535]].each do |seat_id, slide_id, post, attempt|
      name = ids.encode(seat_id, slide_id, post: post, attempt: attempt)
      read = ids.decode(name)
      expect([read.seat_id, read.post, read.attempt, read.on?(slide_id), read.on?("s2")])
        .to eq([seat_id, post, attempt, true, false])
      expect(name).to eq(described_class.new("secret").encode(seat_id, slide_id, post: post, attempt: attempt))
      expect(described_class.new("another").decode(name).on?(slide_id)).to be(false)
    end
  end

  it "gives names from which neither the seat nor what belongs together can be seen" do
    names = [1, 2, 3].product(%w[s1 s2], (0..9).to_a).map { |seat, slide, post| ids.encode(seat, slide, post: post) }
    expect(names).to all(match(described_class::SHAPE))
    # Six characters are 36 bits: that two of 60 agree in them by chance is one in ten million.
    [0..5, 8..13, 15..20].each { |part| expect(names.map { |name| name[part] }.uniq.length).to eq(names.length) }
  end

  it "takes nothing else for a name" do
    [nil, 7, "", "a" * 21, "a" * 23, "#{"a" * 21}\n", "#{"a" * 21}é", ["a" * 22]].each do |other|
      expect(ids.decode(other)).to be_nil
    end
  end
end
