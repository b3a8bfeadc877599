# frozen_string_literal: true

RSpec.describe Roost::Core::Grading::Scale do
  def scale(top: 10, step: 1, table: "")
    described_class.new(top: top, step: step, table: described_class.read_table(table).value)
  end

  it "is the top grade times the share, rounded to the step, halves up" do
    grade = ->(share, top, step) { scale(top: top, step: step).grade(share) }
    expect(grade.call(3/4r, 10, 1)).to eq(8) # 7.5
    expect(grade.call(1/2r, 15, BigDecimal("0.5"))).to eq(15/2r)
    expect(grade.call(2/3r, 6, BigDecimal("0.1"))).to eq(4)
    expect(grade.call(0r, 6, 1)).to eq(0)
  end

  it "is a name from the school's table, and says from which percent" do
    letters = scale(table: "90 A\n75,5 % = B+\n\n60: pass")
    expect([1r, 9/10r, 8999/10000r, 755/1000r, 3/5r, 0r].map do |share|
      letters.grade(share)
    end).to eq(["A", "A", "B+", "B+", "pass", ""])
    steps = []
    letters.grade(4/5r, steps: steps)
    expect(Roost::Web::Why.sentences(steps)).to eq(["From 75.5 % on it is B+."])
  end

  it "refuses what is no table, with the line" do
    { "A 90" => "“A 90”", "120 A" => "“120 A”", "90" => "“90”", "90 A\n90 B" => "same percent",
      "50 #{"x" * 13}" => "not a line", (1..21).map { |at| "#{at} A" }.join("\n") => "at most 20" }.each do |typed, words|
      expect(described_class.read_table(typed).reason).to include(words)
    end
    expect(described_class.read_table("x" * 5000).ok?).to be(false)
  end
end
