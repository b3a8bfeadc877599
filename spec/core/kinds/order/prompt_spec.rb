# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Order::Prompt do
  def order(texts: %w[Egg Chick Fledgling Adult], **settings)
    items = described_class.items(texts)
    described_class.new(id: "p1", settings: { "items" => items, "made" => items.length }.merge(settings.transform_keys(&:to_s)))
  end

  def given(*places) = { "order" => places.map { |place| "i#{place}" } }

  it "marks the share of pairs in the right relative order: A C B D against A B C D is 5/6" do
    expect(order.mark(given(1, 3, 2, 4))).to eq(5 / 6r)
    expect([order.mark(given(1, 2, 3, 4)), order.mark(given(4, 3, 2, 1))]).to eq([1, 0])
  end

  it "marks all or nothing when the teacher wants it so" do
    exact = order(partial: false)
    expect([exact.mark(given(1, 2, 3, 4)), exact.mark(given(1, 3, 2, 4))]).to eq([1, 0])
    expect(order(poll: true).mark(given(1, 2, 3, 4))).to be_nil
  end

  it "marks an order and its reverse together as one" do
    PropCheck.forall(PropCheck::Generators.choose(0..23)) do |which|
      places = [1, 2, 3, 4].permutation.to_a[which]
      expect(order.mark(given(*places)) + order.mark(given(*places.reverse))).to eq(1)
    end
  end

  it "gives seats other orders, the same each time, that depend on what the items are and not on their key" do
    orders = (0...12).map { |number| order.ordered_items(number).map(&:text) }
    expect(orders.uniq.length).to be > 4
    expect((0...12).map { |number| order.ordered_items(number).map(&:text) }).to eq(orders)
    reversed = described_class.new(id: "p1", settings: order.settings.merge("items" => order.settings["items"].reverse))
    expect((0...12).map { |number| reversed.ordered_items(number).map(&:text) }).to eq(orders)
  end

  it "tallies who put what where, with the mean place" do
    tally = order.tally([given(1, 2, 3, 4), given(2, 1, 3, 4), given(1, 2, 4, 3), { "order" => [] }])
    expect(tally.answered).to eq(3)
    expect(tally.rows.map(&:counts)).to eq([[2, 1, 0, 0], [1, 2, 0, 0], [0, 0, 2, 1], [0, 0, 1, 2]])
    expect(tally.rows.map(&:place)).to eq([4 / 3r, 5 / 3r, 10 / 3r, 11 / 3r])
    expect([tally.right, tally.rows.map(&:right)]).to eq([1, [2, 2, 2, 2]])
    expect(order.tally([]).rows.map(&:place)).to all(be_nil)
  end

  it "reads only the items there are, each once" do
    expect(order.read({ "order" => ["i2,i1,i3,i4"] }).value).to eq(given(2, 1, 3, 4))
    expect(order.read({}).value).to eq({ "order" => [] })
    ["i1,i2,i3", "i1,i1,i2,i3", "i1,i2,i3,i4,i5", "x", "\xFF", ","].each do |text|
      expect(order.read({ "order" => [text] })).not_to be_ok
    end
    PropCheck.forall(PropCheck::Generators.string) { |text| order.read({ "order" => [text] }) }
  end

  it "keeps items through an edit, adds and removes, and says what is missing" do
    form = { "item_ids" => %w[i1 i2 i3 i4], "item_texts" => ["Egg", "Chick", "", "Adult"], "partial" => "1" }
    expect(order.edited(form).value.problems).to eq(["an item is empty"])
    expect(order.edited(form.merge("do" => "remove:i3")).value.items.map(&:text)).to eq(%w[Egg Chick Adult])
    expect(order.edited(form.merge("do" => "earlier:i4")).value.items.map(&:id)).to eq(%w[i1 i2 i4 i3])
    expect(order.edited({ "do" => "add" }).value.items.last.id).to eq("i5")
    expect(order.edited(form.merge("item_ids" => ["i9"])).reason).to start_with("These items have changed meanwhile.")
  end

  it "goes into a sheet and back" do
    [order, order(partial: false, along: true)].each do |prompt|
      expect(through_sheet(prompt).value).to eq(prompt)
    end
  end

  it "answers as a simulated class would" do
    students = Roost::Core::Practice::Roster.students(300, seed: 3)
    random = Random.new(4)
    able, others = students.partition { |student| student.ability.positive? }
    mean = ->(group) { group.sum { |student| order.mark(order.simulate(student, random)) } / group.length }
    expect(mean.call(able)).to be > mean.call(others)
  end
end
