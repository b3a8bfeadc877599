# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Choice::Prompt do
  describe "marks (rules.md)" do
    it "gives the worked example a third: keys A C D, picked A C B" do
      prompt = choice(keys: %w[o1 o3 o4], several: true, partial: true)
      expect(prompt.mark(picked("o1", "o3", "o2"))).to eq(1/3r)
    end

    it "gives all or nothing without partial credit" do
      prompt = choice(keys: %w[o1 o3], several: true)
      expect([picked("o1", "o3"), picked("o1"), picked("o1", "o3", "o4")].map do |value|
        prompt.mark(value)
      end).to eq([1, 0, 0])
    end

    it "marks nothing without a key" do
      expect(choice.mark(picked("o1"))).to be_nil
    end

    it "never leaves the range from 0 to 1, and is 1 for exactly the key" do
      ids = %w[o1 o2 o3 o4]
      PropCheck.forall(PropCheck::Generators.array(PropCheck::Generators.one_of(*ids.map do |id|
        PropCheck::Generators.constant(id)
      end)),
                       PropCheck::Generators.boolean) do |some, partial|
        keys = some.uniq.empty? ? ["o2"] : some.uniq
        prompt = choice(keys: keys, several: true, partial: partial)
        marks = (0..4).flat_map { |size| ids.combination(size).to_a }.map { |pick| prompt.mark(picked(*pick)) }
        expect(marks).to all(be_between(0, 1))
        expect(prompt.mark(picked(*keys))).to eq(1)
      end
    end
  end

  describe "reading an answer" do
    it "keeps known options in the order they stand" do
      expect(choice(several: true).read({ "options" => %w[o3 o1 o1] }).value).to eq(picked("o1", "o3"))
    end

    it "refuses options that are not on the slide, and several where one is asked" do
      expect(choice.read({ "options" => ["x9"] }).reason).to eq("That option isn't on this slide. Choose again.")
      expect(choice.read({ "options" => %w[o1 o2] }).reason).to eq("Choose just one option.")
    end

    it "refuses what is no answer at all without raising" do
      [nil, 7, "o1", [], { "options" => { "a" => 1 } }].each { |raw| expect(choice.read(raw)).to respond_to(:ok?) }
      expect(choice.read({ "options" => [{ "a" => 1 }] })).not_to be_ok
    end
  end

  it "tallies counts and shares of those who answered" do
    tally = choice(keys: ["o2"]).tally([picked("o1"), picked("o2"), picked("o2"), picked])
    expect(tally.rows.map(&:count)).to eq([1, 2, 0, 0])
    expect(tally.rows.map(&:share)).to eq([1/3r, 2/3r, 0, 0])
    expect([tally.answered, tally.right]).to eq([3, 2])
  end

  describe "settings" do
    def form(prompt, **changes)
      { "option_ids" => prompt.options.map(&:id), "option_texts" => prompt.options.map(&:text),
        "keys" => prompt.options.select(&:key).map(&:id) }.merge(changes.transform_keys(&:to_s))
    end

    it "adds and removes options without ever using an id again" do
      prompt = choice.edited(form(choice, do: "add")).value
      prompt = prompt.edited(form(prompt, do: "remove:o5")).value
      prompt = prompt.edited(form(prompt, do: "add")).value
      expect(prompt.options.map(&:id)).to eq(%w[o1 o2 o3 o4 o6])
    end

    it "says what is missing" do
      expect(choice(texts: ["", ""]).problems).to include("fewer than two options", "an option is empty")
      expect(choice.problems).to eq(["no key yet"])
      expect(choice(poll: true).problems).to be_empty
    end

    it "refuses a time limit outside 5 to 600 seconds" do
      expect(choice.edited(form(choice, time_limit: "3")).reason).to eq("The time limit can be 5 to 600 seconds, or empty.")
    end
  end
end

RSpec.describe Roost::Core::Prompt do
  it "keeps the settings every kind has when the kind is changed" do
    edited = choice.edited({ "explanation" => "Food runs out", "hint" => "Think of flies", "subtopics" => "food; winter, food",
                             "bloom" => "analyse", "depth" => "3", "practice" => "1", "may_change" => "no",
                             "points" => "40" }).value
    changed = Roost::Core::Kinds::Writing::Prompt.new(id: "p9", settings: edited.shared)
    expect(changed.settings).to include("explanation" => "Food runs out", "hint" => "Think of flies", "depth" => 3,
                                        "subtopics" => %w[food winter], "bloom" => "analyse", "may_change" => false)
    expect([changed.points, changed.counts?, changed.may_change]).to eq([40, false, false])
  end

  it "ignores tags and levels it does not know, and refuses a novel for a hint" do
    expect(choice.edited({ "bloom" => "guess", "depth" => "9" }).value.settings).to include("bloom" => "", "depth" => nil)
    expect(choice.edited({ "hint" => "x" * 501 }).reason).to start_with("The hint is too long")
  end
end

RSpec.describe Roost::Core::Kinds::Choice::Prompt do
  let(:picture) { Roost::Core::Picture.new(file: "#{"a" * 64}.png", width: 4, height: 3, alt: "A hooked beak").freeze }

  it "lets a picture be an option, alone or with words" do
    pictured = choice(texts: ["", "Swallow"]).picturing("o1", picture).value
    expect(pictured.problems).to eq(["no key yet"])
    expect(pictured.plain(picked("o1"))).to eq("A A hooked beak")
    expect(pictured.edited({ "option_ids" => %w[o1 o2], "option_texts" => ["", "B"],
                             "do" => "unpicture:o1" }).value.options[0].picture)
      .to be_nil
    expect(pictured.picturing("o9", picture)).not_to be_ok
  end

  it "asks by letters alone where the options stand on the slide, and finds its words again after" do
    lettered = choice(lettered: true, keys: ["o2"])
    expect([lettered.problems, lettered.to_read, lettered.plain(picked("o2"))]).to eq([[], [], "B"])
    expect(lettered.edited({ "lettered" => "0", "keys" => ["o2"] }).value.options[1].text).to eq("Swallow")
    page = slide(heading: "", arrangement: "full", pictures: [picture])
    expect(described_class.fitting(page)).to eq({ "lettered" => true })
    expect(described_class.fitting(slide)).to eq({ "lettered" => false })
  end

  it "puts the options into the same other order each time for the same seat, and loses none" do
    shuffled = choice(shuffle: true, keys: ["o1"])
    orders = (0...12).map { |order| shuffled.ordered_options(order).map(&:id) }
    expect(orders.uniq.length).to be > 4
    expect(orders.map(&:sort).uniq).to eq([%w[o1 o2 o3 o4]])
    expect(shuffled.ordered_options(3)).to eq(shuffled.ordered_options(3))
    expect(shuffled.ordered_options(nil).map(&:id)).to eq(%w[o1 o2 o3 o4])
  end

  describe "how sure students are" do
    let(:asked) { choice(keys: ["o1"], sure: true) }

    def sure(option, place) = { "options" => [option], "sure" => place }

    it "is read beside the answer, and anything else counts as not said" do
      expect(asked.read({ "options" => ["o1"], "sure" => ["2"] }).value).to eq(sure("o1", 2))
      ["", "3", "-1", "x"].each do |bad|
        expect(asked.read({ "options" => ["o1"], "sure" => [bad] }).value).to eq(sure("o1", nil))
      end
      expect(choice.read({ "options" => ["o1"], "sure" => ["2"] }).value).to eq({ "options" => ["o1"] })
      expect(asked.plain(sure("o2", 0))).to eq("B Swallow (a guess)")
    end

    it "is crossed with right and wrong" do
      tally = asked.tally([sure("o1", 2), sure("o1", 2), sure("o2", 2), sure("o1", 0), sure("o3", nil)])
      expect(tally.sure.map { |row| [row.words, row.count, row.right] })
        .to eq([["A guess", 1, 1], ["Fairly sure", 0, 0], ["Certain", 3, 2]])
      expect(choice(sure: true).tally([sure("o1", 1)]).sure.map(&:right)).to all(be_nil)
      expect(choice.tally([]).sure).to be_nil
    end
  end

  it "has a scale of agreement, which is an opinion" do
    scale = choice.edited({ "do" => "agree" }).value
    expect(scale.options.map(&:text)).to eq(["Strongly agree", "Agree", "Neither", "Disagree", "Strongly disagree"])
    expect(scale.problems).to be_empty
  end
end
