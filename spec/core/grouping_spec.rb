# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::Grouping do
  # @param shares [Hash{String=>Rational}]
  def seen(id, known: true, **shares)
    mean = shares.empty? ? nil : shares.values.sum / shares.length
    described_class::Seen.new(id: id, shares: shares.transform_keys(&:to_s), share: mean, known: known && !mean.nil?,
                              has: known && !mean.nil? && mean >= 4/5r)
  end

  def of(students, **how) = described_class.of(students, seed: 1, **how)

  def random_class(chance, many)
    Array.new(many) do |id|
      seen(id, food: Rational(chance.rand(11), 10), weather: Rational(chance.rand(11), 10), known: chance.rand > 0.1)
    end
  end

  it "puts those who lack the same together" do
    food = [1, 4, 7].map { |id| seen(id, food: 0r, weather: 1r) }
    weather = [2, 5, 8].map { |id| seen(id, food: 1r, weather: 0r) }
    both = [3, 6, 9].map { |id| seen(id, food: 0r, weather: 0r) }
    expect(of([*food, *weather, *both].sort_by(&:id), way: "alike",
size: 3).map(&:sort)).to match_array([[1, 4, 7], [2, 5, 8], [3, 6, 9]])
  end

  it "gives each group one who has it, where there are enough, and groups of like means" do
    shares = [1r, 1r, 9/10r, 1/2r, 1/2r, 2/5r, 1/5r, 1/10r, 0r]
    students = shares.each_with_index.map { |share, id| seen(id, food: share) }
    groups = of(students, way: "mixed", size: 3)
    expect(groups.map { |group| group.count { |id| id < 3 } }).to eq([1, 1, 1])
    means = groups.map { |group| group.sum { |id| shares[id] } / 3 }
    expect(means.max - means.min).to be <= 1/5r
  end

  it "has everybody once, in groups that differ by one at most, the same for the same seed" do
    chance = Random.new(7)
    30.times do
      students = random_class(chance, chance.rand(2..31))
      %w[alike mixed].each do |way|
        size = chance.rand(described_class::SIZES)
        groups = of(students, way: way, size: size)
        expect(groups.flatten.sort).to eq(students.map(&:id))
        lengths = groups.map(&:length)
        expect(lengths.max - lengths.min).to be <= 1
        expect(of(students, way: way, size: size)).to eq(groups)
      end
    end
  end

  it "deals those of whom too little was seen last and evenly" do
    students = [*(1..4).map { |id| seen(id, food: 1r) }, *(5..8).map { |id| seen(id, known: false) }]
    %w[alike mixed].each do |way|
      groups = of(students, way: way, size: 4)
      expect(groups.map { |group| group.count { |id| id > 4 } }).to eq([2, 2])
    end
    expect(of([seen(1, known: false)], way: "alike", size: 3)).to eq([[1]])
  end

  it "makes as many groups as come nearest to the size, and none of one alone where it can be helped" do
    lengths = ->(many, size) { of(Array.new(many) { |id| seen(id, food: 1r) }, way: "mixed", size: size).map(&:length).sort }
    expect([lengths.call(9, 2), lengths.call(7, 4), lengths.call(10, 3), lengths.call(3, 8)])
      .to eq([[2, 2, 2, 3], [3, 4], [3, 3, 4], [3]])
  end

  it "never lets changing places make it worse" do
    chance = Random.new(3)
    10.times do
      students = random_class(chance, 24).select(&:known)
      shares = students.to_h { |student| [student.id, student.share] }
      spread = ->(groups) { groups.map { |group| group.sum { |id| shares[id] } / group.length }.minmax.reduce(:-).abs }
      dealt = students.map(&:id).shuffle(random: chance).each_slice((students.length / 6.0).ceil).to_a
      expect(spread.call(of(students, way: "mixed", size: 4))).to be <= spread.call(dealt)
    end
  end
end
