# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Match::Prompt do
  def match(pairs = [%w[Swallow insects], %w[Heron fish], %w[Bunting seeds], [nil, "bread"]], **settings)
    rows = Roost::Core::Kinds::Match::Rows.of(pairs)
    described_class.new(id: "p1", settings: { "rows" => rows, "made" => rows.length }.merge(settings.transform_keys(&:to_s)))
  end

  def given(*rights, tries: nil)
    { "pairs" => rights.each_with_index.to_h do |right, place|
      ["m#{place + 1}", right && "m#{right}"]
    end.compact, "tries" => tries }
  end

  it "marks right pairs of the pairs asked" do
    expect(match.mark(given(1, 2, 3))).to eq(1)
    expect(match.mark(given(1, 3, 2))).to eq(1 / 3r)
    expect(match.mark(given(1, nil, 4))).to eq(1 / 3r)
    expect(match(poll: true).mark(given(1, 2, 3))).to be_nil
  end

  it "takes items that are alike on the right for one, so that things can be sorted into groups" do
    sorting = match([%w[Swallow leaves], %w[Heron stays], %w[Cuckoo leaves]])
    expect(sorting.right_items.map(&:text)).to eq(%w[leaves stays])
    expect(sorting.mark(given(1, 2, 1))).to eq(1)
    expect(sorting.read({ "pairs" => ['{"m1a":"m3b"}'] }).ok?).to be(false)
  end

  it "reads pairs of its own items only" do
    expect(match.read({ "pairs" => ['{"m1a":"m4b"}'],
                        "tries" => ["7"] }).value).to eq({ "pairs" => { "m1" => "m4" }, "tries" => nil })
    expect(match(game: true).read({ "pairs" => ["{}"], "tries" => ["99999"] }).value["tries"]).to eq(1000)
    ['{"m4a":"m1b"}', '{"m1a":"m9b"}', '{"m1a":["m1b"]}', "[1]", "7", '{"m1a":null}', '{"m1b":"m1a"}',
     '{"m1":"m1"}'].each do |bad|
      expect(match.read({ "pairs" => [bad] }).reason).to start_with("Those pairs could not be read.")
    end
  end

  it "marks pairs and all ways to mix them evenly: over every order, one pair in three is right" do
    marks = [1, 2, 3].permutation.map { |order| match.mark(given(*order)) }
    expect(marks.sum).to eq(2)
    PropCheck.forall(PropCheck::Generators.choose(0..5)) do |which|
      expect(marks[which] * 3).to eq([1, 2, 3].zip([1, 2, 3].permutation.to_a[which]).count { |one, other| one == other })
    end
  end

  it "tallies who was paired with what, and the commonest wrong partner" do
    tally = match.tally([given(1, 2, 3), given(1, 4, 2), given(2, 4, 3), given])
    expect(tally.rows.map(&:right)).to eq([2, 1, 2])
    expect(tally.rows[1].wrong.then { |item, count| [item.text, count] }).to eq(["bread", 2])
    expect(tally.columns.map(&:text)).to eq(%w[insects fish seeds bread])
    expect([tally.answered, tally.right, tally.tries]).to eq([3, 1, nil])
    played = match(game: true).tally([4, 6, 9].map { |tries| given(1, 2, 3, tries: tries) })
    expect(played.tries).to eq(6)
  end

  it "is corrected by exchanging what belongs to what, and by nothing that answers stand on" do
    corrected = match.corrected({ "keys" => { "m1" => "m2", "m2" => "m1", "m9" => "m1", "m3" => "x" } }).value
    expect(corrected.mark(given(2, 1, 3))).to eq(1)
    expect(corrected.corrected({ "keys" => { "m1" => "m1", "m2" => "m2" } }).value).to eq(match)
    expect(match.corrected({ "do" => "remove:m2", "row_ids" => %w[m1 m2 m3 m4], "lefts" => [], "rights" => [] }).ok?).to be(false)
  end

  it "is written row by row, with items too many, moved and removed" do
    form = { "row_ids" => %w[m1 m2 m3 m4], "lefts" => ["Swift", "Heron", "Bunting", ""],
             "rights" => %w[insects fish seeds crumbs] }
    edited = ->(action) { match.edited(form.merge("do" => action)).value }
    expect(edited.call("").lefts.map(&:text)).to eq(%w[Swift Heron Bunting])
    expect(edited.call("earlier:m3").lefts.map(&:text)).to eq(%w[Swift Bunting Heron])
    expect(edited.call("remove:m4").right_items.map(&:text)).to eq(%w[insects fish seeds])
    expect(edited.call("extra").settings["rows"].last).to include("id" => "m5", "extra" => true)
    expect(edited.call("add").problems).to eq(["an item is empty"])
    expect(match.edited(form.merge("row_ids" => %w[m1 gone])).reason).to start_with("These items have changed meanwhile.")
  end

  it "takes pictures on both sides, also through a sheet" do
    picture = Roost::Core::Picture.new(file: "a.webp", width: 4, height: 3, alt: "A heron").freeze
    pictured = match.picturing("m2a", picture).value.picturing("m4b", picture).value
    expect(pictured.lefts[1].picture.alt).to eq("A heron")
    expect(sheet_row(pictured).pictures.keys).to eq(["B", "D right"])
    expect(pictured.edited({ "row_ids" => %w[m1 m2], "lefts" => ["", ""], "rights" => %w[a b], "do" => "unpicture:m2a" })
      .value.lefts[1].picture).to be_nil
    expect(match.picturing("m4a", picture).reason).to start_with("That item is gone.")
  end

  it "deals the same cards to the same seat, two a pair, without items too many" do
    game = match(game: true)
    expect(game.cards(3).map { |card, _| card[0..-2] }.tally).to eq("m1" => 2, "m2" => 2, "m3" => 2)
    expect(game.cards(3)).to eq(game.cards(3))
    expect((0...12).map { |order| game.cards(order).map(&:first) }.uniq.length).to be > 4
  end
end
