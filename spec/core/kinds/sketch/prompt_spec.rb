# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Sketch do
  def stroke(**changes)
    { "tool" => "pen", "colour" => "ink", "points" => [0, 0, 10, 10] }.merge(changes.transform_keys(&:to_s))
  end

  def draw(strokes) = sketch.read({ "strokes" => [JSON.generate(strokes)] })

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
