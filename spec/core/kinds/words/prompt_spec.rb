# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Words::Prompt do
  def words(**settings) = described_class.new(id: "p1", settings: settings.transform_keys(&:to_s))

  def given(*texts) = { "words" => texts }

  it "takes up to as many words as asked for, each once, and leaves empty ones out" do
    expect(words.read({ "words" => [" reeds ", "", "Reeds!", "mud", "…"] }).value).to eq(given("reeds", "mud"))
    expect(words(most: 1).read({ "words" => %w[reeds mud] }).value).to eq(given("reeds"))
    expect(words.read({ "words" => ["x"] * 6 }).reason).to eq("3 words is the most here. Remove some.")
    expect(words.read({ "words" => ["x" * 41] }).reason).to start_with("A word is too long")
    expect([nil, [], "x", { "words" => nil }].map { |raw| words.read(raw).value }).to all(eq(given))
  end

  it "counts what is the same as one, in its commonest spelling" do
    tally = words.tally([given("Reeds", "mud"), given("reeds"), given("reeds!", "Mud"), given, given("ｍｕｄ")])
    expect(tally.rows.map { |row| [row.text, row.count] }).to eq([["mud", 3], ["reeds", 3]])
    expect(tally.answered).to eq(4)
  end

  it "knows who gave each word, for the teacher only, and takes a word away for all and back" do
    values = { 7 => given("Reeds", "mud"), 9 => given("reeds") }
    names = { 7 => "Ada", 9 => "Bo" }
    curation = Roost::Core::Session::Curation::BLANK
    tally = words.gathered(values, names: names, curation: curation)
    expect(tally.rows.map { |row| [row.key, row.names] }).to eq([["reeds", %w[Ada Bo]], ["mud", ["Ada"]]])
    expect(words.for_class(tally).to_h.to_s).not_to match(/Ada|Bo/)
    without = words.gathered(values, names: names, curation: curation.after("remove", ["reeds"]), before: tally)
    expect([without.rows.map(&:text), without.cloud.map(&:text),
            without.removed.map(&:text)]).to eq([["mud"], ["mud"], ["Reeds"]])
    expect(words.for_class(without).removed).to be_empty
    back = curation.after("remove", ["reeds"]).after("restore", ["reeds"])
    expect(words.gathered(values, names: names, curation: back).rows).to eq(tally.rows)
  end

  it "takes a word away, however long it is once it is normalised" do
    word = "\u{FDFA}" * 40
    key = words.gathered({ 1 => given(word) }).rows.first.key
    expect(key.length).to be > 400
    curation = Roost::Core::Session::Curation::BLANK.after("remove", [key])
    expect(words.gathered({ 1 => given(word) }, curation: curation).rows).to be_empty
  end

  it "can be listed as they came: what was there keeps its place, whoever says what afterwards" do
    before = words.gathered({ 3 => given("mud"), 1 => given("reeds", "tide") })
    later = { 3 => given("mud", "heron"), 1 => given("reeds", "tide"), 2 => given("tide", "dusk") }
    tally = words.gathered(later, before: before)
    expect(tally.rows.map(&:key).first).to eq("tide")
    expect([before, tally].map { |each| each.as_they_came.map(&:key) })
      .to eq([%w[mud reeds tide], %w[mud reeds tide heron dusk]])
    gone = words.gathered({ 3 => given("heron"), 1 => given("tide") }, before: tally)
    expect(gone.as_they_came.map(&:key)).to eq(%w[tide heron])
  end

  it "keeps the number of words within one and five" do
    expect(words.edited({ "most" => "6" }).reason).to eq("The number of words can be 1 to 5 words, or empty.")
    expect(words.edited({ "most" => "5" }).value.most).to eq(5)
  end
end

RSpec.describe Roost::Core::Tallies::Cloud do
  let(:row) { Roost::Core::Kinds::Words::Tallying::Row }

  def layout(counts, width: 760, height: 340)
    described_class.layout(counts.map do |text, count|
      row.new(key: text, text: text, count: count)
    end, width: width, height: height)
  end

  def boxes(words)
    words.map do |word|
      wide = described_class.width(word.text) * word.size
      [word.x - (wide / 2), word.y - (word.size / 2), word.x + (wide / 2), word.y + (word.size / 2)]
    end
  end

  it "is empty of nothing, and puts one word in the middle" do
    expect(layout({})).to be_empty
    expect(layout({ "reeds" => 1 }).first.to_h).to include(x: 380.0, y: 170.0)
  end

  it "never lets words overlap or leave the box, whatever they are and however many" do
    make = PropCheck::Generators
    counts = make.array(make.tuple(make.choose(1..24), make.choose(1..40)),
                        max: 70)
    PropCheck.forall(counts).with_config(n_runs: 25).check do |pairs|
      named = pairs.each_with_index.to_h { |(length, count), place| ["#{"abWil"[place % 5] * length}#{place}", count] }
      words = layout(named)
      rarest_left_in = words.map(&:count).min
      expect(named.except(*words.map(&:text)).values).to all(be <= rarest_left_in.to_i)
      expect(words.map(&:size)).to all(be >= 17)
      expect(boxes(words)).to all(satisfy { |box| box[0] >= 0 && box[1] >= 0 && box[2] <= 760 && box[3] <= 340 })
      overlapping = boxes(words).combination(2).count do |one, other|
        one[0] < other[2] && other[0] < one[2] && one[1] < other[3] && other[1] < one[3]
      end
      expect(overlapping).to eq(0)
    end
  end

  it "has all of sixty words as children give them, and leaves the rarest out where they are all as long as can be" do
    birds = %w[heron swallow reed owl duck egg wing flight north south mud dusk]
    counts = Array.new(60) { |at| ["#{birds[at % 12]}#{at}", 1 + (at % 7)] }.to_h
    expect(layout(counts).length).to eq(60)
    long = Array.new(60) { |at| ["#{"m" * 38}#{at}", 1 + (at % 7)] }.to_h
    kept = layout(long)
    expect(kept.length).to be_between(6, 30)
    expect(kept.map(&:count).min).to be >= 5
  end

  it "is the same for the same words, and gives area by count" do
    counts = { "reeds" => 16, "mud" => 4, "wind" => 4, "frogs" => 1 }
    expect(layout(counts)).to eq(layout(counts.to_a.reverse.to_h))
    sizes = layout(counts).to_h { |word| [word.text, word.size] }
    expect((sizes["reeds"] / sizes["mud"])**2).to be_within(0.1).of(4)
  end

  # Whether a word, in the size it has now, could have stayed where it was.
  def free?(word, was, others)
    half = ->(each) { [((described_class.width(each.text) * each.size) + 5) / 2, ((1.08 * each.size) + 5) / 2] }
    wide, high = half.call(word)
    return false if was.x < wide || was.y < high || was.x + wide > 760 || was.y + high > 340

    others.none? do |other|
      across, down = half.call(other)
      (was.x - other.x).abs < wide + across && (was.y - other.y).abs < high + down
    end
  end

  it "keeps a word's place while it can, as words come and counts grow" do
    [3, 5, 8].each do |seed|
      random = Random.new(seed)
      given = Array.new(50) { "word#{(28 * (random.rand**2)).floor}" }
      (5..given.length).reduce([]) do |before, many|
        rows = given.first(many).tally.map { |text, count| row.new(key: text, text: text, count: count) }
        now = described_class.layout(rows, width: 760, height: 340, before: before)
        old = before.to_h { |word| [word.key, word] }
        moved = now.select { |word| old[word.key] && [word.x, word.y] != [old[word.key].x, old[word.key].y] }
        expect(moved).to all(satisfy { |word| !free?(word, old[word.key], now - [word]) })
        now
      end
    end
  end

  it "shrinks a single word until it fits" do
    words = layout({ "Donaudampfschifffahrtsgesellschaftskapit" => 5, "mud" => 1 }, width: 300)
    expect(boxes(words).map { |box| box[2] - box[0] }.max).to be <= 300
  end
end
