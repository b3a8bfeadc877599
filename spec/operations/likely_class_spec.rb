# frozen_string_literal: true

RSpec.describe Roost::Operations::LikelyClass do
  let(:account) { teacher }
  let(:classes) { Roost::Store::Classes.new.all(account) }
  # A Tuesday, 10:15 at the school.
  let(:now) { Time.utc(2026, 11, 24, 10, 15).to_f }

  before do
    %w[Kestrel Dunlin Merlin].each { |name| Roost::Operations::KeepClass.new.create(account, { "name" => name }) }
  end

  def id(name) = classes.find { |each| each.name == name }.id

  def taught(name, *time)
    session = kept_session(account)
    database[:sessions].where(id: session.id).update(class_id: id(name), created_at: Time.utc(2026, 11, *time))
  end

  def likely = classes.find { |each| each.id == described_class.new.call(account, classes, now) }&.name

  it "is the one at this hour of the week, else the one taught last, else any, and none without classes" do
    expect(%w[Kestrel Dunlin Merlin]).to include(likely)
    taught("Merlin", 23, 14, 0)
    expect(likely).to eq("Merlin")
    taught("Dunlin", 10, 10, 40)
    expect(likely).to eq("Dunlin")
    taught("Kestrel", 17, 10, 56)
    expect(likely).to eq("Dunlin")
    taught("Kestrel", 3, 9, 40)
    taught("Merlin", 24, 8, 0)
    expect(likely).to eq("Dunlin")
    expect(described_class.new.call(account, [], now)).to be_nil
  end
end
