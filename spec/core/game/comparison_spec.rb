# frozen_string_literal: true

RSpec.describe Roost::Core::Game::Comparison do
  let(:slides) { Array.new(3) { |at| slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1])) } }

  def now(*points) = slides.zip(points).to_h.compact

  it "sets a round beside the latest earlier attempt, and leaves out what that did not ask" do
    round = described_class.new(now(100, 50, 0), [{ "q0" => 100, "q1" => 100, "q2" => 100 }, { "q0" => 0, "q2" => 100 }])
    expect(round.steps.map { |step| [step.slide.id, step.points, step.before, step.total, step.total_before] })
      .to eq([["q0", 100, 0, 100, 0], ["q2", 0, 100, 100, 100]])
    expect([round.against, round.points, round.difference, round.best]).to eq([:yourself, 150, 0, 300])
  end

  it "is against the class's median where there is no earlier attempt, as far as there is one" do
    round = described_class.new(now(100, 50), []) { |slide_id| { "q0" => 175/2r }[slide_id] }
    expect([round.against, round.steps.map(&:before), round.difference, round.best]).to eq([:class, [175/2r], 25/2r, 150])
    alone = described_class.new(now(100, 50), []) { nil }
    expect([alone.against, alone.steps, alone.points]).to eq([nil, [], 150])
  end

  it "tells no median of so few that one of them could be known by it, and earns without a clock" do
    expect([[100, 0], [100, 0, 50], [0, 50, 100, 100]].map { |values| described_class.median(values) }).to eq([nil, 50, 75])
    timed = choice(id: "p9", keys: %w[o1], time_limit: 5, points: 40)
    expect([0r, 1/3r, 1].map { |mark| described_class.earned(timed, mark) }).to eq([0, 13, 40])
  end
end
