# frozen_string_literal: true

RSpec.describe Roost::Core::Game::Standings do
  it "gives one the rank that the whole list gives, ties as ties, and says why" do
    chance = Random.new(5)
    20.times do
      points = (1..8).to_h { |id| [id, chance.rand(5) * 10] }
      rows = described_class.rows(points.transform_values { |each| "S#{each}" }, points)
      rows.each { |row| expect(described_class.rank(points.values, row.points)).to eq(row.rank) }
    end
    steps = []
    expect(described_class.rank([50, 30, 30, 10], 30, steps: steps)).to eq(2)
    expect(Roost::Web::Why.sentences(steps)).to eq(["1 of 4 have more than 30 points, 1 have as many: rank 2."])
  end
end
