# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Curation do
  let(:blank) { described_class::BLANK }

  it "removes, lets through, pins and sorts, each undone by its opposite, whatever was done before" do
    done = [["remove", ["a"]], ["approve", %w[a b]], ["pin", ["b"]], ["column", ["a"], 1]]
    curation = done.reduce(blank) { |so_far, step| so_far.after(*step) }
    expect(curation.to_h).to eq(removed: ["a"], approved: %w[a b], pinned: ["b"], columns: { "a" => 1 }, own: {})
    undone = [["restore", ["a"]], ["hold", %w[a b]], ["unpin", ["b"]], ["column", ["a"], nil]]
    expect(undone.reduce(curation) { |so_far, step| so_far.after(*step) }).to eq(blank)
    expect(curation.after("remove", ["a"])).to eq(curation)
    expect(described_class.from_document(JSON.parse(JSON.generate(curation.to_document)))).to eq(curation)
  end

  it "does nothing it does not know" do
    expect([blank.after("burn", ["a"]), blank.after("pin", []), blank.after("pin", ["x" * 801]),
            blank.after("pin", ["a"] * 2001)])
      .to all(be_nil)
  end

  it "is what a command does to a slide that was asked, also after the end" do
    words = slide("s2", prompt: Roost::Core::Kinds::Words::Prompt.new(id: "p2", settings: {}))
    asked_too = slide("s3", prompt: Roost::Core::Kinds::Words::Prompt.new(id: "p3", settings: {}))
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: [words, asked_too, slide("s4", prompt: choice)])
    commands = Roost::Core::Session::Commands
    state = commands.call(lesson, room_options, Roost::Core::Session::State.start, "begin", {}, 0.0).value
    state = commands.call(lesson, room_options, state, "jump", { "slide" => "s4" }, 1.0).value
    state = commands.call(lesson, room_options, state, "end", {}, 2.0).value
    curate = ->(arguments) { commands.call(lesson, room_options, state, "curate", arguments, 3.0) }
    removed = curate.call({ "slide" => "s2", "what" => "remove", "cards" => "mud\nwind" }).value
    expect(removed.curation("s2").removed).to eq(%w[mud wind])
    expect(Roost::Core::Session::State.from_document(removed.to_document, removed.facts)).to eq(removed)
    expect(curate.call({ "slide" => "s3", "what" => "remove",
                         "cards" => "mud" }).reason).to eq("That question hasn't been asked in this session.")
    [%w[s2 burn], %w[s2 pin], %w[s4 remove]].each do |slide_id, what| # what the kind does not declare
      refused = curate.call({ "slide" => slide_id, "what" => what, "cards" => "mud" })
      expect(refused.reason).to eq("That can't be done with it. Reload the page.")
    end
  end
end
