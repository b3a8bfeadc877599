# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Record do
  let(:seats) { %w[Ada Bo].each_with_index.map { |name, place| Roost::Core::Session::Seat.new(id: place + 1, name: name).freeze } }
  let(:looked_at) { [] }
  let(:poll) { { 1 => answer(1, "s2", watched("o1")) } }
  let(:game) { { 1 => answer(1, "s3", watched("o2")) } }
  let(:first) { record({ ["s2", 1] => poll, ["s3", 1] => game }) }

  def record(answers, before: nil, seats: self.seats, lesson: marsh)
    record_of(lesson: lesson, seats: seats, answers: answers, memory: before&.memory || Roost::Core::Session::Memory.new)
  end

  # An answer that notes when somebody looks what is in it.
  def watched(*ids)
    looks = looked_at
    picked(*ids).tap { |value| value.define_singleton_method(:[]) { |name| super(name).tap { looks << ids } } }
  end

  def marsh = @marsh ||= marsh_lesson

  def given(record) = %w[s2 s3].to_h { |slide_id| [slide_id, record.given(slide_id)] }

  it "works out what the record before it has not, and nothing else" do
    given(first)
    expect(looked_at.shift(looked_at.length)).to eq([%w[o1], %w[o2]])
    poll_now = poll.merge(2 => answer(2, "s2", watched("o3")))
    later = record({ ["s2", 1] => poll_now, ["s3", 1] => game }, before: first)
    expect(given(later)).to eq({ "s2" => poll_now, "s3" => game })
    expect(looked_at).to eq([%w[o3]])
    expect(later.given("s3")).to equal(first.given("s3"))
    expect(given(first)).to eq({ "s2" => poll, "s3" => game })
  end

  it "works out all anew for another class, or another lesson" do
    given(first)
    [{ seats: seats.drop(1) }, { lesson: marsh_lesson }].each do |other|
      later = record(first.answers, before: first, **other)
      expect(given(later)).to eq(given(record(first.answers, **other)))
      expect(later.given("s2")).not_to equal(first.given("s2"))
    end
    expect(record(first.answers, before: first, seats: seats.drop(1)).names).to eq({ 2 => "Bo" })
  end

  it "says the same however many came after it before it was asked" do
    later = record(first.answers, before: first, seats: seats.drop(1))
    expect([later.given("s2"), first.given("s2"), first.names]).to eq([{}, poll, { 1 => "Ada", 2 => "Bo" }])
  end

  it "knows what was taken back, changed, or can't be read any more" do
    given(first)
    unread = answer(1, "s2", nil).dup.tap { |each| each.typed = { "options" => ["?"] } }.freeze
    { {} => {}, { 1 => answer(1, "s2", picked("o2")) } => { 1 => answer(1, "s2", picked("o2")) }, { 1 => unread } => {},
      { 1 => answer(1, "s2", picked) } => {} }.each do |answers, expected|
      later = record({ ["s2", 1] => answers }, before: first)
      expect(later.given("s2")).to eq(expected)
      expect(later.unread("s2").keys).to eq(answers.values == [unread] ? [1] : [])
    end
  end
end
