# frozen_string_literal: true

RSpec.describe Roost::Core::Grading::Rubric do
  text = "Content: missing 0, in part 1, complete 2\nLanguage: hard to read 0; clear 1.5"

  def read(text) = described_class.read(text)

  it "is criteria with levels and points, and gives the share of the most that can be earned" do
    rubric = read(text).value
    expect(rubric.criteria.map { |each| [each.name, each.levels.map { |level| [level.name, level.points] }] })
      .to eq([["Content", [["missing", 0], ["in part", 1], ["complete", 2]]],
              ["Language", [["hard to read", 0], ["clear", 3/2r]]]])
    expect([rubric.most, rubric.mark([2, 1]), rubric.mark([1, 0]), rubric.mark([0, 0])]).to eq([7/2r, 1, 2/7r, 0])
    expect([[2, 1], [3, 0], [1], [1, nil], [-1, 0]].map do |levels|
      rubric.fits?(levels)
    end).to eq([true, false, false, false, false])
  end

  it "is nothing where nothing is typed, and says what is wrong with a line" do
    expect(read(" \n ").value).to be_nil
    { "Content" => "is no criterion", "Content: good" => "is no criterion", "Content: good 1" => "2 to 6 levels",
      "Content: a 1, b 0.3" => "in halves", "Content: a 0, b 0" => "earn a point", "#{"x" * 61}: a 0, b 1" => "is no criterion",
      "A: a 0, b 1\n" * 9 => "at most 8" }.each { |typed, words| expect(read(typed).reason).to include(words) }
    expect(read("x" * 50_000).ok?).to be(false)
  end

  it "is read in no time, whatever stands there" do
    Timeout.timeout(5) do
      ["A: a#{" " * 1990}x, b 1", "A: #{"(" * 1900}1, b 1", "A: #{"1" * 1900}, b 1"].each do |typed|
        read(typed)
      end
    end
  end
end

RSpec.describe Roost::Core::Grading::HandMark do
  let(:prompt) { writing(id: "p", points: 15, rubric: "Content: none 0, some 1, all 2\nStyle: poor 0, good 1") }

  def read(written) = described_class.read(written, prompt)

  it "is read in quarters, points of the question in halves, or levels, and written as it was" do
    { "3/4" => 3/4r, "p7.5" => 1/2r, "p0.5" => 1/30r, "l2,0" => 2/3r, "l2,1" => 1, "0" => 0 }.each do |written, mark|
      expect([read(written).value.mark, read(written).value.mark.class]).to eq([mark, Rational])
    end
    expect(%w[3/4 p5 l2,0 1 0].map { |written| read(written).value.written(prompt) }).to eq(%w[3/4 p5 l2,0 1 0])
    expect(read("p7.5").value.written(prompt)).to eq("1/2")
    expect(read("").value).to be_nil
  end

  it "refuses what is none" do
    %w[2/3 p16 p1.3 p-1 p l l0 l3,0 l0,0,0 l0,x none l1,1,1,1,1,1,1,1,1,1].each { |written| expect(read(written)).not_to be_ok }
    expect(described_class.read("l0", writing(id: "q"))).not_to be_ok
  end
end

RSpec.describe Roost::Core::Analysis::Agreement do
  # rules.md: both "yes" 9, both "no" 6, only the first "yes" 3, only the second 2.
  it "is as worked in the rules" do
    pairs = ([[1, 1]] * 9) + ([[0, 0]] * 6) + ([[1, 0]] * 3) + ([[0, 1]] * 2)
    agreement = described_class.new(pairs, levels: 2)
    steps = []
    expect([agreement.share, agreement.kappa(steps: steps).to_f.round(3)]).to eq([3/4r, 0.490])
    expect(Roost::Web::Why.sentences(steps)).to eq(["By chance alone it would be 51 %.",
                                                    "(75 % − 51 %) ÷ (100 % − 51 %) = 0.49."])
  end

  # By hand, three levels, twelve answers: weights 1, ½, 0; po = (6 + 4×½ + 2×0)/12 = 2/3. The first gave 4, 4, 4; the second
  # 5, 4, 3: pe = (4·5 + 4·4 + 4·3 + ½(4·4 + 4·5 + 4·3 + 4·4))/144 = (48 + 32)/144 = 5/9; κ = (2/3 − 5/9)/(4/9) = 1/4.
  it "weighs how far levels are apart, linearly" do
    pairs = [[0, 0], [0, 0], [0, 1], [0, 2], [1, 1], [1, 1], [1, 0], [1, 0], [2, 2], [2, 2], [2, 1], [2, 0]]
    agreement = described_class.new(pairs, levels: 3)
    expect([agreement.share, agreement.kappa]).to eq([1/2r, 1/4r])
  end

  it "is none below ten answers in common, and where both always gave the same" do
    few = described_class.new([[1, 1]] * 9, levels: 2)
    expect([few.share, few.kappa, few.enough?]).to eq([nil, nil, false])
    expect(described_class.new([[1, 1]] * 10, levels: 2).kappa).to be_nil
  end
end
