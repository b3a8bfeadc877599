# frozen_string_literal: true

RSpec.describe Roost::Core::Lesson do
  let(:lesson) { marsh_lesson }

  it "is the same after being written down and read back" do
    expect(described_class.from_document(JSON.parse(JSON.generate(lesson.to_document)))).to eq(lesson)
  end

  it "keeps every slide whatever is moved where" do
    PropCheck.forall(PropCheck::Generators.choose(0..4), PropCheck::Generators.integer) do |which, to|
      moved = lesson.moving(["s#{which + 1}"], to)
      expect(moved.slides.map(&:id).sort).to eq(lesson.slides.map(&:id).sort)
      expect(moved.place("s#{which + 1}")).to eq(to.clamp(0, 4))
    end
  end

  it "copies a slide after itself, with a question of its own and nothing else changed" do
    copied = lesson.duplicating({ "s3" => "copy" }).value
    copy = copied.slide("copy")
    expect(copied.place("copy")).to eq(3)
    expect(copy.prompt.id).not_to eq(lesson.slide("s3").prompt.id)
    expect(copy.prompt.settings).to eq(lesson.slide("s3").prompt.settings.merge("origin" => "p3"))
    expect(copied.without_slides(["copy"])).to eq(lesson)
    expect(copied.section_of("copy")).to eq(copied.section_of("s3"))
  end

  it "refuses a lesson without a title" do
    expect(described_class.read_title("  ").reason).to eq("A lesson needs a title. Type one.")
  end

  it "does not understand a document of another schema" do
    expect { described_class.from_document({ "schema" => 99, "title" => "", "slides" => [] }) }.to raise_error(ArgumentError)
  end

  describe Roost::Core::Slide do
    it "takes its name from the heading, else from the text" do
      expect(slide(heading: "").with(text: "# Look\nhere").name).to eq("Look")
      expect(slide(heading: "").name).to eq("Untitled slide")
    end

    it "refuses a heading that is too long and changes nothing" do
      expect(slide.edited({ "heading" => "x" * 201 }).reason).to eq("The heading is too long: 200 characters is the most.")
    end

    it "counts the words a student has to read" do
      expect(slide(heading: "Why do birds leave?",
                   prompt: choice(texts: ["Less food",
                                          "Cold"])).with(text: "Think first.").words).to eq(9)
    end
  end
end

RSpec.describe Roost::Core::JoinCode do
  it "reads codes without caring for case and spaces" do
    expect(["ktr 7wm", " KTR7WM", "k t r-7 w m"].map { |raw| described_class.read(raw) }).to all(eq("KTR7WM"))
    expect(["", nil, "KTR7W", "KTR7WMM", "KTR 7W!", "'; --"].map { |raw| described_class.read(raw) }).to all(be_nil)
  end

  it "makes codes that it reads itself" do
    200.times { |seed| described_class.make(Random.new(seed)).tap { |code| expect(described_class.read(code)).to eq(code) } }
  end
end

RSpec.describe Roost::Core::SeatName do
  it "numbers the second of a name, whatever its case" do
    expect(described_class.read("bo", taken: ->(_beginning) { ["Bo", "Bo 2"] }).value).to eq("bo 3")
  end

  it "asks for a name that has a letter in it" do
    expect(described_class.read(" .. ").reason).to start_with("Type your name")
  end
end
