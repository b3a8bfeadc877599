# frozen_string_literal: true

RSpec.describe Roost::Core::Prompts do
  def stroke(**changes)
    { "tool" => "pen", "colour" => "ink", "points" => [0, 0, 10, 10] }.merge(changes.transform_keys(&:to_s))
  end

  def draw(strokes) = sketch.read({ "strokes" => [JSON.generate(strokes)] })

  it "offers the kinds in the order a teacher meets them" do
    expect(described_class.kinds.map(&:kind)).to eq(%w[choice number writing words sketch spots gaps match order posts])
  end

  it "gives every kind the same methods" do
    described_class.kinds.each do |kind|
      prompt = kind.new(id: "p", settings: {})
      value = prompt.imagine(Roost::Core::Practice::Roster.students(1, seed: 1).first, Random.new(1))
      expect(prompt.plain(value)).to be_a(String)
      expect(prompt.tally([value]).answered).to eq(prompt.blank_answer?(value) ? 0 : 1)
      expect(described_class.from_document(prompt.to_document)).to eq(prompt)
      expect(prompt.edited({})).to be_ok
    end
  end

  describe "writing" do
    it "normalises text, drops control characters and keeps inner spaces" do
      expect(writing.read({ "text" => ["  Cafe\u0301  two\u0000\u202E "] }).value).to eq({ "text" => "Café  two" })
    end

    it "has several boxes where asked for, each with its limit" do
      boxes = writing(boxes: ["I saw", "I think"], word_limit: 3)
      value = boxes.read({ "box0" => ["a heron"], "box1" => [""] }).value
      expect(value).to eq({ "text" => "I saw: a heron", "boxes" => ["a heron", ""] })
      expect(boxes.blank_answer?(boxes.read({}).value)).to be(true)
      expect(boxes.read({ "box1" => ["one two three four"] }).reason)
        .to eq("“I think” is 4 words; 3 is the most. Shorten it, then hand it in.")
      expect(writing.edited({ "boxes" => "a,b,c,d,e,f" }).reason).to eq("5 boxes is the most.")
      expect(writing.edited({ "boxes" => "I saw, I think" }).value.boxes).to eq(["I saw", "I think"])
    end

    it "refuses two megabytes, broken bytes and too many words in one sentence" do
      expect(writing.read({ "text" => ["x" * 2_000_000] }).reason).to eq("That answer is too long: 8 000 characters is the most.")
      expect(writing.read({ "text" => ["\xFF\xFE"] }).reason).to eq("That answer is not readable text.")
      expect(writing(word_limit: 2).read({ "text" => ["one two three"] }).reason)
        .to eq("That is 3 words; 2 is the most. Shorten it, then hand it in.")
    end
  end

  describe "sketch" do
    it "keeps strokes as they were drawn" do
      kept = draw([stroke]).value
      expect(kept["strokes"]).to eq([stroke])
      expect([draw([stroke]).value["no"], draw([stroke, stroke]).value["no"]]).to match([kept["no"], satisfy do |no|
        no != kept["no"]
      end])
    end

    it "keeps shapes, arrows, stickers and a pen's pressure, each with the points it has" do
      strokes = [stroke(tool: "arrow"), stroke(tool: "rectangle", points: [9, 9, 1, 1]), stroke(tool: "ellipse"),
                 stroke(tool: "sticker", sticker: "star", points: [5, 5]), stroke(pressure: [3, 9])]
      expect(draw(strokes).value["strokes"]).to eq(strokes)
      expect(draw([stroke(tool: "line", points: [0, 0, 1, 1, 2, 2])]).value["strokes"].first["points"]).to eq([0, 0, 1, 1])
      expect(draw([stroke(pressure: [3])]).value["strokes"]).to eq([stroke])
      [stroke(tool: "arrow", points: [1, 1]), stroke(tool: "sticker", sticker: "skull"), stroke(tool: "sticker")].each do |bad|
        expect(draw([bad])).not_to be_ok
      end
    end

    it "refuses a stroke of a million points, points off the sheet, and what is no drawing" do
      expect(draw([stroke(points: Array.new(2_000_000, 1))]).reason).to eq("That drawing is too large. Undo a few strokes.")
      expect(draw([stroke(points: Array.new(50_000, 1))]).reason).to eq("That drawing is too large. Undo a few strokes.")
      [[stroke(points: [0, 901])], [stroke(points: [0.5, 1])], [stroke(tool: "laser")], [stroke(colour: "url(#x)")],
       [stroke(tool: "text", text: "")], { "a" => 1 }, [7]].each { |bad| expect(draw(bad)).not_to be_ok }
      expect(sketch.read({ "strokes" => ["[NaN"] })).not_to be_ok
    end

    it "reads any list of strokes or refuses it, and never raises" do
      PropCheck.forall(PropCheck::Generators.array(PropCheck::Generators.integer)) do |points|
        reading = draw([stroke(points: points)])
        fits = points.length.even? && points.length >= 2 &&
               points.each_slice(2).all? { |x, y| x.between?(0, 1200) && y.between?(0, 900) }
        expect(reading.ok?).to eq(fits)
      end
    end
  end
end
