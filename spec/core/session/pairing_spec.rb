# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Pairing do
  def rounds(ids, count, size: 2)
    Array.new(count).each_with_index.reduce([]) do |earlier, (_, turn)|
      earlier + [described_class.of(ids, size: size, earlier: earlier, seed: 7 + turn)]
    end
  end

  def repeats(rounds)
    rounds.flatten(1).flat_map { |group| group.combination(2).map(&:sort) }.tally.values.sum { |times| times - 1 }
  end

  it "puts everybody who is here into one group, of the size or next to it" do
    (2..31).to_a.product([2, 3]).each do |many, size|
      groups = described_class.of((1..many).to_a, size: size, earlier: [], seed: many)
      expect(groups.flatten.sort).to eq((1..many).to_a)
      expect(groups.map(&:length) - [2, 3]).to eq([])
      expect(groups.count { |group| group.length != size }).to be <= 2
    end
  end

  it "leaves out who is alone" do
    expect([[], [1]].map { |ids| described_class.of(ids, size: 2, earlier: [], seed: 1) }).to eq([[], []])
  end

  it "gives nobody the same neighbour again, for as many rounds as there are others" do
    { 4 => 3, 6 => 5, 10 => 9, 30 => 29 }.each { |many, count| expect(repeats(rounds((1..many).to_a, count))).to eq(0) }
  end

  it "does so for threes, for odd numbers and where people come and go, for a lesson's worth of rounds" do
    expect(repeats(rounds((1..27).to_a, 5, size: 3))).to eq(0)
    expect(repeats(rounds((1..25).to_a, 6))).to eq(0)
    earlier = rounds((1..28).to_a, 4)
    later = described_class.of((1..30).to_a - [5, 9], size: 2, earlier: earlier, seed: 3)
    expect(repeats([*earlier, later])).to eq(0)
  end

  it "repeats as little as can be where it has to" do
    expect(repeats(rounds([1, 2], 3))).to eq(2)
    expect(repeats(rounds((1..4).to_a, 4))).to eq(2)
  end

  it "is the same for the same seed, and another for another" do
    make = ->(seed) { described_class.of((1..20).to_a, size: 2, earlier: [], seed: seed).map(&:sort).sort }
    expect(make.call(1)).to eq(make.call(1))
    expect((1..5).map { |seed| make.call(seed) }.uniq.length).to be > 1
  end
end
