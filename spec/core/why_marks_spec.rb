# frozen_string_literal: true

# A mark in part says how it comes about, and the last step is the mark.
RSpec.describe "Why a mark is what it is" do
  kinds = Roost::Core::Kinds

  def why(prompt, value)
    steps = []
    mark = prompt.mark(value, steps: steps)
    expect(steps.last&.value).to eq(mark) if steps.any?
    [mark, Roost::Web::Why.sentences(steps)]
  end

  it "of several picked: right less wrong, of all that are right (rules.md)" do
    prompt = choice(texts: %w[A B C D], keys: %w[o1 o3 o4], several: true, partial: true)
    expect(why(prompt, picked("o1", "o3", "o2"))).to eq([1/3r, ["(2 right − 1 wrong) ÷ 3 = 0.333."]])
    expect(why(prompt, picked("o2"))).to eq([0, ["(0 right − 1 wrong) ÷ 3 = 0, no less than 0."]])
    expect(why(choice(keys: %w[o1]), picked("o1"))).to eq([1, []])
  end

  it "of an order: pairs that stand right (rules.md)" do
    items = %w[A B C D].each_with_index.map { |text, at| { "id" => "i#{at + 1}", "text" => text } }
    prompt = kinds::Order::Prompt.new(id: "p", settings: { "items" => items, "partial" => true, "made" => 4 })
    expect(why(prompt, { "order" => %w[i1 i3 i2 i4] })).to eq([5/6r, ["Of 6 pairs, 5 stand in the right order: 0.833 of 1."]])
  end

  it "of gaps and matches: how many are right" do
    gaps = kinds::Gaps::Prompt.new(id: "p", settings: { "text" => "A [[heron]] and an [[owl]]." })
    expect(why(gaps, { "gaps" => %w[heron ox] })).to eq([1/2r, ["1 of 2 right: ½ of 1."]])
  end

  it "stands before what the answer earns on a student's page" do
    prompt = choice(texts: %w[A B C], keys: %w[o1 o2], several: true, partial: true)
    opened = { "a" => [Roost::Core::Session::Opening.begin(0.0, nil)] }
    record = record_of(lesson: Roost::Core::Lesson.new(title: "B", slides: [slide("a", prompt: prompt)]),
                       seats: [Roost::Core::Session::Seat.new(id: 1, name: "Ada")], shown: { ["a", 1] => { 1 => 0.0 } },
                       answers: { ["a", 1] => { 1 => answer(1, "a", picked("o1")) } }, begun_at: 0.0,
                       facts: Roost::Core::Session::Facts.of(openings: opened))
    said = Roost::Web::Why.sentences(Roost::Core::Analysis::Results.new(record).why("a", 1))
    expect(said).to eq(["(1 right − 0 wrong) ÷ 2 = 0.5.", "By the key the answer earns ½ of 1."])
  end
end
