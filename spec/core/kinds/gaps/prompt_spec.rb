# frozen_string_literal: true

RSpec.describe Roost::Core::TextMatch do
  def accepted?(typed, *accepted, accents: true, slip: true)
    described_class.accepted?(typed, accepted, accents: accents, slip: slip)
  end

  it "compares without regard to case, width and spaces" do
    expect(["FROST", " frost ", "ｆｒｏｓｔ", "Frost"].map { |typed| accepted?(typed, "frost", slip: false) }).to all(be(true))
    expect(accepted?("first  frost", "first frost", slip: false)).to be(true)
    expect(accepted?("STRASSE", "Straße", slip: false)).to be(true)
  end

  it "lets accents matter or not" do
    expect([accepted?("grebe", "grèbe", slip: false), accepted?("grebe", "grèbe", accents: false)]).to eq([false, true])
  end

  it "allows one slip in words of five letters and more, and none in numbers" do
    %w[swalow swallwo swallows swxllow].each { |typed| expect([typed, accepted?(typed, "swallow")]).to eq([typed, true]) }
    expect([accepted?("swlow", "swallow"), accepted?("frst", "frog"), accepted?("rial", "rail")]).to all(be(false))
    expect([accepted?("1967", "1966"), accepted?("12345", "12346")]).to all(be(false))
    expect(accepted?("swalow", "swallow", slip: false)).to be(false)
  end

  # As in the textbook: the whole matrix of optimal string alignment.
  def distance(one, other)
    rows = [(0..other.length).to_a]
    (1..one.length).each do |i|
      rows << [i]
      (1..other.length).each do |j|
        best = [rows[i - 1][j] + 1, rows[i][j - 1] + 1, rows[i - 1][j - 1] + (one[i - 1] == other[j - 1] ? 0 : 1)].min
        exchanged = i > 1 && j > 1 && one[i - 1] == other[j - 2] && one[i - 2] == other[j - 1]
        rows[i] << (exchanged ? [best, rows[i - 2][j - 2] + 1].min : best)
      end
    end
    rows.last.last
  end

  it "knows a distance of one at most, both ways" do
    letters = PropCheck::Generators.array(PropCheck::Generators.choose(0..2), max: 6)
    PropCheck.forall(letters, letters) do |one, other|
      one, other = [one, other].map { |places| places.map { |place| "abc"[place] }.join }
      near = [described_class.near?(one, other), described_class.near?(other, one)]
      expect([one, other, *near]).to eq([one, other, *([distance(one, other) <= 1] * 2)])
    end
  end
end

RSpec.describe Roost::Core::Kinds::Gaps::Prompt do
  let(:text) { "Swallows leave in [[September | autumn]] after the [[insects]] have gone." }

  def gaps(**settings) = described_class.new(id: "p1", settings: { "text" => text }.merge(settings.transform_keys(&:to_s)))

  def filled(*texts) = { "gaps" => texts }

  it "finds the gaps in the text, with everything that is accepted" do
    expect(gaps.gaps).to eq([%w[September autumn], ["insects"]])
    expect(gaps.parts).to eq(["Swallows leave in ", 0, " after the ", 1, " have gone."])
    expect(gaps(text: "Nothing [[ ]] here [[|]]").gaps).to be_empty
    expect(gaps(text: "no gap").problems).to eq(["no gap yet: write [[word]]"])
  end

  it "marks the share of gaps that are right" do
    expect([gaps.mark(filled("autumn", "insects")), gaps.mark(filled("Autumn", "seeds")),
            gaps.mark(filled("", ""))]).to eq([1, 1 / 2r, 0])
    expect(gaps(slip: false).mark(filled("autunm", "insects"))).to eq(1 / 2r)
  end

  it "tallies each gap, with the commonest wrong filling in its commonest spelling" do
    tally = gaps.tally([filled("autumn", "Seeds"), filled("may", "seeds"), filled("September", "seeds"), filled("", "frost"),
                        filled("", "")])
    expect(tally.answered).to eq(4)
    expect(tally.rows.map { |row| [row.right, row.wrong] }).to eq([[2, ["may", 1]], [0, ["seeds", 3]]])
    expect(tally.right).to eq(0)
  end

  it "comes to the same with what was compared before, and compares anew when what is accepted changes" do
    values = { 1 => filled("autumn", "frost"), 2 => filled("spring", "ice") }
    before = gaps.gathered(values)
    more = values.merge(3 => filled("spring", "frost"))
    told = ->(tally) { [tally.rows.map(&:to_h), tally.answered, tally.right] }
    expect(told.call(gaps.gathered(more, before: before))).to eq(told.call(gaps.tally(more.values)))
    corrected = gaps.corrected({ "text" => "Swallows leave in [[spring]] before the [[ice]]." }).value
    expect(corrected.gathered(more, before: before).rows.map(&:right)).to eq([2, 1])
  end

  it "gives a bank of all words, in another order for other seats" do
    banked = gaps(bank: true, distractors: %w[spring seeds])
    expect(banked.bank_words(1).sort).to eq(%w[September insects seeds spring])
    expect((0...12).map { |order| banked.bank_words(order) }.uniq.length).to be > 4
    expect([banked.shuffle?, gaps.shuffle?]).to eq([true, false])
  end

  it "reads a text for each gap and nothing else" do
    expect(gaps.read({ "gap0" => [" may "], "gap9" => ["x"] }).value).to eq(filled("may", ""))
    expect(gaps.read({ "gap1" => ["x" * 121] }).reason).to start_with("Gap 2 is too long")
    expect(gaps.read(nil).value).to eq(filled("", ""))
  end

  it "refuses too many gaps and too long ones" do
    expect(gaps.edited({ "text" => "[[a]] " * 21 }).reason).to eq("20 gaps is the most a text can have.")
    expect(gaps.edited({ "text" => "[[#{"a" * 81}]]" }).reason).to include("is too long for a gap")
    expect(gaps.edited({ "bank" => "1",
                         "distractors" => "north; seeds, north" }).value.settings["distractors"]).to eq(%w[north seeds])
  end
end
