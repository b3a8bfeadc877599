# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Spots::Prompt do
  def region(shape, *numbers, id: "r1", wanted: 1, name: "")
    { "id" => id, "shape" => shape, "numbers" => numbers, "wanted" => wanted, "name" => name }
  end

  let(:pond) { region("circle", 0.25, 0.5, 0.1, 0.2, wanted: 2) }
  let(:in_pond) { [0.3, 0.55] }
  let(:in_reeds) { [0.7, 0.4] }
  let(:outside) { [0.5, 0.95] }
  let(:reeds) { region("rectangle", 0.6, 0.2, 0.9, 0.6, id: "r2", name: "Reeds") }

  def spots(regions = [pond, reeds], most: 4, **settings)
    described_class.new(id: "p1", settings: { "regions" => regions, "most" => most }.merge(settings.transform_keys(&:to_s)))
  end

  def given(*points) = { "spots" => points.map { |x, y| { "x" => x, "y" => y, "label" => "" } } }

  it "marks spots inside their region, at most as many as it wants, less those outside" do
    expect(spots.mark(given(in_pond, in_pond, in_reeds))).to eq(1)
    expect(spots.mark(given(in_pond, in_reeds))).to eq(2 / 3r)
    expect(spots.mark(given(in_pond, in_pond, in_pond))).to eq(2 / 3r)
    expect(spots.mark(given(in_pond, in_reeds, outside))).to eq(1 / 3r)
    expect(spots.mark(given(in_pond, outside, outside))).to eq(0)
    expect(spots([]).mark(given(in_pond))).to be_nil
  end

  it "gives a spot in two regions to the one that still wants it, in whatever order they come" do
    overlapping = [region("rectangle", 0.0, 0.0, 0.6, 1.0), region("rectangle", 0.4, 0.0, 1.0, 1.0, id: "r2")]
    both = [0.5, 0.5]
    [[both, [0.1, 0.5]], [[0.1, 0.5], both], [both, [0.9, 0.5]]].each do |points|
      expect(spots(overlapping).mark(given(*points))).to eq(1)
    end
  end

  it "knows what lies in a circle, a rectangle and a polygon with a bay" do
    bay = region("polygon", 0.1, 0.1, 0.9, 0.1, 0.9, 0.9, 0.5, 0.3, 0.1, 0.9)
    shape = spots([bay]).regions.first
    expect([[0.2, 0.2], [0.8, 0.2], [0.5, 0.2]].map { |x, y| shape.cover?(x, y) }).to all(be(true))
    expect([[0.5, 0.6], [0.05, 0.5], [0.5, 0.95]].map { |x, y| shape.cover?(x, y) }).to all(be(false))
    expect(spots.regions.first.cover?(0.25, 0.69)).to be(true)
    expect(spots.regions.first.cover?(0.34, 0.69)).to be(false)
  end

  it "never marks below nothing or above all, and never better for a spot outside" do
    make = PropCheck::Generators
    generator = make.array(make.tuple(make.choose(0..100), make.choose(0..100)))
    PropCheck.forall(generator) do |points|
      value = given(*points.first(6).map { |x, y| [x / 100.0, y / 100.0] })
      mark = spots.mark(value)
      expect(mark).to be_between(0, 1)
      worse = { "spots" => value["spots"] + given(outside)["spots"] }
      expect(spots.mark(worse)).to be <= mark
    end
  end

  it "reads fractions of the picture and nothing else" do
    read = ->(text) { spots(most: 2).read({ "spots" => [text] }) }
    expect(read.call("[[0.123456,1],[0,0.5]]").value).to eq(given([0.1235, 1.0], [0.0, 0.5]))
    expect(read.call("").value).to eq(given)
    expect(read.call("[[0,0],[0,0],[0,0]]").reason).to eq("2 spots is the most here. Remove some.")
    ["[[1.2,0]]", "[[-0.1,0]]", "[[null,0]]", "[[1]]", "{}", "[[NaN,0]]", '[["0.5",0.5]]', "[" * 50].each do |bad|
      expect(read.call(bad).reason).to start_with("Those spots could not be read.")
    end
  end

  it "keeps names where they are asked for, and drops them elsewhere" do
    text = { "spots" => ['[[0.5,0.5,"North Mere"]]'] }
    expect(spots(labels: true).read(text).value["spots"].first["label"]).to eq("North Mere")
    expect(spots.read(text).value["spots"].first["label"]).to eq("")
    expect(spots(labels: true).plain({ "spots" => [{ "x" => 0.5, "y" => 0.25,
                                                     "label" => "Mere" }] })).to eq("Mere: 50 % across, 25 % down")
  end

  it "tallies spots by region, and tells how the class stands" do
    tally = spots.tally([given(in_pond, in_pond, in_reeds), given(outside), given])
    expect(tally.regions.map { |row| [row.inside, row.seats] }).to eq([[2, 1], [1, 1]])
    expect([tally.answered, tally.right, tally.outside, tally.spots.length]).to eq([2, 1, 1, 4])
  end

  it "comes to the same with what was found before, and finds out anew when the regions change" do
    values = { 1 => given(in_pond, in_pond, in_reeds), 2 => given(outside) }
    before = spots.gathered(values)
    more = values.merge(3 => given(in_reeds), 4 => given(outside))
    told = ->(tally) { [tally.regions.map(&:to_h), tally.right, tally.outside, tally.answered] }
    expect(told.call(spots.gathered(more, before: before))).to eq(told.call(spots.tally(more.values)))
    before.density(0.75)
    grown = spots.gathered(more, before: before).density(0.75)
    spots.tally(more.values).density(0.75).cells.zip(grown.cells) { |one, other| expect(one).to be_within(1e-9).of(other) }
    left = spots.gathered(more.except(1), before: before).density(0.75)
    expect(left.cells).to eq(spots.tally(more.except(1).values).density(0.75).cells)
    corrected = spots([reeds])
    expect(told.call(corrected.gathered(more, before: before))).to eq(told.call(corrected.tally(more.values)))
  end

  it "says what is missing: a key, or room for all the spots the regions want" do
    expect(spots([]).problems).to eq(["no key yet"])
    expect(spots(most: 2).problems).to eq(["the regions want 3 spots, but only 2 can be placed"])
    bare = Roost::Core::Slide.new(id: "s1", heading: "Where?", prompt: spots)
    expect(bare.problems).to eq(["no picture yet"])
  end

  it "takes regions from the builder, and refuses what lies beside the picture or is none" do
    edited = ->(regions) { spots([]).edited({ "regions" => JSON.generate(regions) }) }
    expect(edited.call([pond, reeds]).value.regions.map(&:id)).to eq(%w[r1 r2])
    [[region("circle", 0.5, 0.5, 0.1, 1.1)], [region("rectangle", 0.5, 0.5, 0.4, 0.6)], [region("polygon", 0.1, 0.1, 0.2, 0.2)],
     [region("star", 0.1, 0.1, 0.2, 0.2)], [pond.merge("wanted" => 11)], [1]].each do |bad|
      expect(edited.call(bad).reason).to eq("A region has to lie on the picture. Move it back.")
    end
    expect(edited.call([pond] * 11).reason).to eq("10 regions is the most a picture can have.")
    expect(spots.edited({ "regions" => "[" }).reason).to eq("The regions could not be read. Reload the page.")
  end

  describe Roost::Core::Tallies::Density do
    it "is thickest where points lie, the same size on any picture, and nothing far away" do
      density = described_class.new([{ "x" => 0.5, "y" => 0.5 }, { "x" => 0.5, "y" => 0.5 }, { "x" => 0.1, "y" => 0.1 }],
                                    aspect: 0.75)
      expect([density.columns, density.rows]).to eq([48, 36])
      at = ->(x, y) { density.cells[((y * 36).floor * 48) + (x * 48).floor] }
      expect(at.call(0.5, 0.5)).to eq(1.0)
      expect(at.call(0.1, 0.1)).to be_within(0.1).of(0.5)
      expect(at.call(0.9, 0.9)).to eq(0)
      sigma = (0.03 * 48).round
      expect(density.cells[(18 * 48) + 24 + sigma]).to be_within(0.12).of(Math.exp(-0.5))
      expect(described_class.new([], aspect: 1.4).cells.max).to eq(0)
    end
  end
end
