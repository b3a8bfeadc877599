# frozen_string_literal: true

RSpec.describe Roost::Web::Pace do
  let(:now) { [0.0] }
  let(:pace) { described_class.new(burst: 3, rate: 2, clock: -> { now[0] }) }

  it "lets so many through at once and so many a second, each by itself" do
    expect(Array.new(5) { pace.turn?(:ada) }).to eq([true, true, true, false, false])
    expect(pace.turn?(:bo)).to be(true)
    now[0] = 1.0
    expect(Array.new(3) { pace.turn?(:ada) }).to eq([true, true, false])
    now[0] = 100.0
    expect(Array.new(4) { pace.turn?(:ada) }).to eq([true, true, true, false])
  end

  it "makes those who cost more wait longer" do
    expect([pace.turn?(:ada, 5), pace.turn?(:ada)]).to eq([true, false])
    now[0] = 1.4
    expect(pace.turn?(:ada)).to be(false)
    now[0] = 1.6
    expect(pace.turn?(:ada)).to be(true)
  end

  it "remembers no more than it has room for" do
    (described_class::KEPT + 10).times { |number| pace.turn?(number) }
    expect(pace.instance_variable_get(:@left).length).to eq(described_class::KEPT)
  end
end
