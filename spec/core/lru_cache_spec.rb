# frozen_string_literal: true

RSpec.describe Roost::Core::LruCache do
  let(:cache) { described_class.new(3) }

  it "asks once for each, and forgets the one that was wanted longest ago" do
    asked = []
    want = ->(key) { cache.fetch(key) { (asked << key) && key.to_s } }
    expect([1, 2, 3, 1, 4, 1, 2].map(&want)).to eq(%w[1 2 3 1 4 1 2])
    expect(asked).to eq([1, 2, 3, 4, 2])
  end

  # What a block makes of it.
  def made(name) = name.to_s.upcase

  it "keeps nothing where there is nothing, or the block failed" do
    expect(cache.fetch(:a) { made(:a) && nil }).to be_nil
    expect { cache.fetch(:a) { raise ArgumentError } }.to raise_error(ArgumentError)
    expect(cache.fetch(:a) { made(:a) }).to eq("A")
  end

  it "forgets when told" do
    (1..3).each { |key| cache.fetch(key) { key * 10 } }
    cache.delete(1)
    cache.delete_if { |value| value == 20 }
    expect((1..3).map { |key| cache.fetch(key) { made(:b) } }).to eq(["B", "B", 30])
    cache.clear
    expect(cache.fetch(3) { made(:b) }).to eq("B")
  end
end
