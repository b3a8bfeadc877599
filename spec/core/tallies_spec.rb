# frozen_string_literal: true

RSpec.describe Roost::Core::Tallies do
  describe Roost::Core::Tallies::Grouping do
    def groups(*texts) = described_class.new(texts).groups.map(&:texts)

    it "joins texts that are alike, over others too, and leads with the one most like the rest" do
      one = "they follow the older birds"
      two = "They follow the older birds."
      three = "They follow older birds, I think."
      found = described_class.new([one, "By the stars", two, three]).groups
      expect(found.map(&:count)).to eq([3, 1])
      expect(found.first.lead).to eq(one)
      expect(found.first.texts).to contain_exactly(one, two, three)
      expect(found.last.lead).to eq("By the stars")
    end

    it "takes what differs only in case, width and spaces for the same" do
      expect(groups("Food", " food", "ＦＯＯＤ", "frost").map(&:length)).to eq([3, 1])
      expect(groups("a", "b", "a")).to eq([%w[a a], ["b"]])
      expect(groups).to be_empty
    end

    it "measures likeness by shared trigrams, Jaccard at least 0.55" do
      jaccard = ->(one, other) { described_class.jaccard(*[one, other].map { |text| described_class.trigrams(text) }) }
      expect(jaccard.call("abc", "abc")).to eq(1.0)
      expect(jaccard.call("abcd", "abce")).to eq(2 / 6.0)
      expect(jaccard.call("abc", "xyz")).to eq(0.0)
    end

    it "comes to the same built up answer by answer as all at once" do
      words = PropCheck::Generators.one_of(*%w[they follow birds stars north river warm].map do |word|
        PropCheck::Generators.constant(word)
      end)
      texts = PropCheck::Generators.array(PropCheck::Generators.array(words, min: 1, max: 4), max: 12)
      PropCheck.forall(texts).with_config(n_runs: 40).check do |given|
        sentences = given.map { |parts| parts.join(" ") }
        grown = nil
        (1..sentences.length).each { |many| grown = described_class.new(sentences.first(many), before: grown) }
        expect(grown.groups).to eq(described_class.new(sentences).groups) if grown
      end
    end

    it "costs no more than its budget, says how many wait, and gets to them" do
      words = %w[reeds wind river stars marsh heron egrets frost].cycle
      long = ->(number) { Array.new(1_600) { |place| place == number ? "answer#{number}" : words.next }.join(" ")[0, 8_000] }
      hostile = Array.new(300) { |number| "#{number} #{long.call(number)}" }
      first = second = nil
      expect(Counting.steps { first = described_class.new(hostile) }).to be < described_class::MOST_STEPS * 3
      expect(first.rest).to be_positive
      expect(first.groups.sum(&:count)).to eq(300)
      expect(Counting.steps { second = described_class.new(hostile, before: first) }).to be < described_class::MOST_STEPS * 3
      expect(second.rest).to be < first.rest
      last = (1..100).inject(second) { |before, _| described_class.new(hostile, before: before) }
      expect([last.rest, last.groups.map(&:count)]).to eq([0, [300]])
    end

    it "forgets an answer that was changed" do
      before = described_class.new(["They follow the river", "They follow the rivers"])
      expect(described_class.new(["They follow the river", "By the stars"], before: before).groups.map(&:count)).to eq([1, 1])
    end
  end

  describe Roost::Core::Tallies::Count do
    it "looks only at what is new or has changed, and comes to the same" do
      seen = []
      things = ->(value) { value["things"].tap { seen << value } }
      count = ->(values, before = nil) { described_class.new(values, before: before, &things) }
      values = { 1 => { "things" => %w[a b] }, 2 => { "things" => [] }, 3 => { "things" => %w[a] } }
      first = count.call(values)
      expect([first.to_h, first.answered, first.of("z")]).to eq([{ "a" => 2, "b" => 1 }, 2, 0])
      seen.clear
      changed = { "things" => %w[b] }
      second = count.call(values.merge(1 => changed), first)
      expect(seen).to eq([values[1], changed])
      expect(second).to eq(count.call(values.merge(1 => changed)))
      expect(count.call(values.except(3), second)).to eq(count.call(values.except(3)))
      expect(first.to_h).to eq({ "a" => 2, "b" => 1 })
    end
  end

  describe Roost::Core::Tallies::KeyTerms do
    it "counts words in at least three answers, once each, without those that say little" do
      texts = ["The stars show the way, the stars!", "Stars and the river", "They follow the river and STARS", "The river"]
      expect(described_class.new(texts).terms).to eq([["river", 3], ["stars", 3]])
      expect(described_class.new(texts.first(2)).terms).to be_empty
      grown = described_class.new(texts, before: described_class.new(texts.first(3)))
      expect(grown.terms).to eq(described_class.new(texts).terms)
    end
  end
end
