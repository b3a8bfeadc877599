# frozen_string_literal: true

RSpec.describe Roost::Core::Game::Points do
  # 24 words, 10 s to read them; 20 s to think.
  def points(mark: 1r, seconds: 8, speed: 1/4r, time_limit: 20, free: 10)
    described_class.for(points: 100, mark: mark, seconds: seconds, time_limit: time_limit, free: free, speed: speed)
  end

  it "gives the worked examples of rules.md" do
    expect([24, 95, 1000].map { |words| described_class.reading_time(words) }).to eq([10, 33.7r, 60])
    expect([8, 20, 30].map { |seconds| points(seconds: seconds) }).to eq([100, 88, 75])
    expect(points(seconds: 33, free: described_class.reading_time(95))).to eq(100)
    expect(points(seconds: 8, mark: 1/3r)).to eq(33)
    expect([points(seconds: 8, mark: 1/8r), points(mark: 1/8r, time_limit: nil)]).to eq([13, 13]) # a half goes up
    expect(points(seconds: 29, speed: 0r)).to eq(100)
    expect(points(mark: 0r)).to eq(0)
    expect(points(seconds: 500, time_limit: nil)).to eq(100)
  end

  it "never gives more for being slower, and nothing below the speed share" do
    tenths = PropCheck::Generators.choose(0..300)
    PropCheck.forall(tenths, tenths) do |one, two|
      early, late = [one, two].sort.map { |tenth| tenth / 10.0 }
      expect(points(seconds: early)).to be >= points(seconds: late)
      expect(points(seconds: late)).to be_between(75, 100)
    end
  end

  # The rule of before, which sessions keep that ran under it: reading within the limit, at most half of it.
  it "still gives an earlier session what it gave then" do
    slide = slide(prompt: choice(keys: ["o1"], time_limit: 20), text: "word " * 14)
    old, now = [1, 2].map { |version| Roost::Core::Game::Timing.of(slide, Roost::Core::Session::Rules.new(version)) }
    expect([slide.words, slide.reading_words, old.to_a, now.to_a]).to eq([24, 24, [10, 10], [10, 20]])
    expect([old.total, now.total]).to eq([20, 20 + now.reading])
    earned = [10, 15, 20].map { |seconds| points(seconds: seconds, time_limit: old.thinking, free: old.reading) }
    expect(earned).to eq([100, (100 * (1 - (0.25 * 5 / 10))).round, 75])
  end
end

RSpec.describe Roost::Core::Game::Standings do
  let(:names) { { 1 => "Ada", 2 => "Bo", 3 => "Cleo", 4 => "Dev" } }

  it "shares ranks and skips the next: 1, 2, 2, 4" do
    rows = described_class.rows(names, { 1 => 50, 2 => 90, 3 => 90, 4 => 100 })
    expect(rows.map { |row| [row.name, row.rank, row.gap] })
      .to eq([["Dev", 1, 0], ["Bo", 2, 10], ["Cleo", 2, 10], ["Ada", 4, 40]])
  end

  it "tells by how many ranks a seat moved" do
    rows = described_class.rows(names, { 1 => 200, 2 => 100, 3 => 50 }, { 1 => 0, 2 => 100, 3 => 50 })
    expect(rows.to_h { |row| [row.name, row.moved] }).to eq("Ada" => 2, "Bo" => -1, "Cleo" => -1, "Dev" => -1)
  end

  it "counts who has nothing yet as 0" do
    expect(described_class.rows(names, {}).map(&:rank)).to eq([1, 1, 1, 1])
  end
end
