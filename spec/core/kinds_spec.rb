# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds do
  it "offers the kinds in the order a teacher meets them" do
    expect(described_class.all.map(&:kind)).to eq(%w[choice number writing words sketch spots gaps match order posts])
  end

  it "gives every kind the same methods" do
    described_class.all.each do |kind|
      prompt = kind.new(id: "p", settings: {})
      value = prompt.simulate(Roost::Core::Practice::Roster.students(1, seed: 1).first, Random.new(1))
      expect(prompt.plain(value)).to be_a(String)
      expect(prompt.tally([value]).answered).to eq(prompt.blank_answer?(value) ? 0 : 1)
      expect(described_class.from_document(prompt.to_document)).to eq(prompt)
      expect(prompt.edited({})).to be_ok
    end
  end
end
