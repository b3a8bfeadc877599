# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Opening do
  it "ends at the deadline, or when it was closed before" do
    opening = described_class.begin(100.0, 20)
    expect([opening.closed(110.0).closed_at, opening.closed(130.0).closed_at]).to eq([110.0, 120.0])
    expect(described_class.begin(100.0, nil).closed(130.0).closed_at).to eq(130.0)
  end

  it "gets a full time limit when opened again, and a timer when it had none" do
    expect(described_class.begin(100.0, 20).closed(110.0).reopened(200.0, 20).deadline).to eq(220.0)
    expect(described_class.begin(100.0, nil).extended(150.0, 15).deadline).to eq(165.0)
    expect(described_class.begin(100.0, 20).extended(119.0, 15).deadline).to eq(135.0)
  end

  it "covers answers from its beginning to a second after its end" do
    opening = described_class.begin(100.0, 20)
    expect([99.9, 100.0, 121.0, 121.1].map { |time| opening.cover?(time) }).to eq([false, true, true, false])
    expect(opening.closed(110.0).cover?(111.1)).to be(false)
    expect(described_class.begin(100.0, nil).cover?(1e9)).to be(true)
  end
end
