# frozen_string_literal: true

RSpec.describe Roost::Core::Drawing::Polyline do
  # As the textbook has it, with complex numbers: how far a point is from the stretch between two.
  def from_line(*points)
    point, one, other = points.map { |x, y| Complex(x, y) }
    return (point - one).abs if one == other

    part = ((point - one) / (other - one)).real.clamp(0, 1)
    (point - one - (part * (other - one))).abs
  end

  it "leaves out what nobody would see, and goes nowhere farther off than it may" do
    number = PropCheck::Generators.choose(0..60)
    PropCheck.forall(PropCheck::Generators.array(PropCheck::Generators.tuple(number, number), min: 1, max: 60)) do |points|
      kept = described_class.kept(points, 3)
      expect([kept.first, kept.last, kept]).to eq([0, points.length - 1, kept.uniq.sort])
      kept.each_cons(2) do |from, to|
        expect((from..to).map { |place| from_line(points[place], points[from], points[to]) }.max).to be <= 3.0001
      end
    end
  end

  it "makes two points of a straight line, in pieces, and keeps what is to stay" do
    line = Array.new(100) { |x| [x, 2 * x] }
    expect(described_class.kept(line, 0.6).length).to be <= (100 / described_class::PIECE) + 2
    expect(described_class.kept(line.first(10), 0.6) { |place| place == 4 }).to eq([0, 4, 9])
  end

  it "takes as many steps for each point of the worst line as of a short one" do
    zigzag = ->(points) { Array.new(points) { |place| [place % 1200, place.odd? ? 0 : 900] } }
    short, long = [500, 5_000].map { |points| Counting.steps { described_class.kept(zigzag.call(points), 0.6) } }
    expect(long).to be < short * 11
  end
end
