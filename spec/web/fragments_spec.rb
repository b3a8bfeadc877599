# frozen_string_literal: true

RSpec.describe Roost::Web::Fragments do
  let(:session) { kept_session(teacher).tap { |kept| command(kept, "begin") && command(kept, "jump", slide: "s2") } }
  let(:seats) { %w[Ada Bo Cleo].map { |name| take_seat(session, name).first } }
  let(:fragments) { described_class.new }

  def desk(with = fragments) = with.desk(Roost::Core::Session::Views.desk(moment(session)), 0.0)

  def entries_made
    made = 0
    allow(Roost::Web::Rendering).to receive(:template).and_wrap_original do |original, name|
      made += 1 if name == "desk/entry"
      original.call(name)
    end
    yield
    made
  end

  it "make an answer anew at the Desk only when something about it has changed" do
    seats.first(2).each { |seat| save(session, seat, "s2", picked("o1")) }
    expect(entries_made { 2.times { desk } }).to eq(2)
    save(session, seats.last, "s2", picked("o2"))
    expect(entries_made { desk }).to eq(1)
    command(session, "spotlight", seat: seats.first[:id].to_s, named: "1")
    expect(entries_made { desk }).to eq(3)
    expect(desk).to eq(desk(described_class.new))
  end

  it "list written answers at the Desk as they came while more come in, and by how many are alike afterwards" do
    command(session, "jump", slide: "s4")
    leads = -> { Nokogiri::HTML(desk).css(".text-lead").map { |lead| lead.text.strip } }
    give = ->(place, text) { save(session, seats[place], "s4", { "text" => text }) }
    [[2, "by the stars"], [1, "by the smell of the sea"]].each { |place, text| give.call(place, text) }
    before = leads.call
    give.call(0, "by the smell of the sea")
    expect([before, leads.call]).to all(eq(["by the stars", "by the smell of the sea"]))
    command(session, "close")
    expect(leads.call).to eq(["by the smell of the sea", "by the stars"])
  end

  it "remember no more than so much" do
    stage = fragments.instance_variable_get(:@stage)
    300.times { |number| stage.kept(Object.new, number) { "a" } }
    300.times { |number| stage.kept(self, number) { number.to_s } }
    kept = stage.instance_variable_get(:@kept)
    expect([kept.length, kept[self].length, stage.kept(self, 299)]).to eq([100, 100, "299"])
  end
end
