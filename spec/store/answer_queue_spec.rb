# frozen_string_literal: true

RSpec.describe Roost::Store::AnswerQueue do
  let(:gate) { Queue.new }
  let(:batches) { Queue.new }
  let(:queue) { described_class.new(-> { answers }) }

  # Writes once the gate lets it, what each save gives it to do.
  let(:answers) do
    batches = self.batches
    gate = self.gate
    Class.new do
      define_method(:save_all) do |saves|
        batches << saves.map { |save| save[:save_no] }
        gate.pop
        saves.map { |save| save[:act]&.call || save[:save_no] }
      end
    end.new
  end

  # @return [Array<Thread>] each with what became of its save
  def at_once(*saves)
    saves.each_with_index.map do |save, place|
      thread = Thread.new { kept({ seat_id: place, slide_id: "s1", attempt: 1, save_no: place, **save }) }
      sleep 0.005 until ["sleep", false].include?(thread.status)
      thread
    end
  end

  def kept(save)
    queue.save(**save)
  rescue Sequel::Error => e
    e.message
  end

  def let_through(count) = count.times { gate << true }

  it "writes together what came meanwhile, and saves of the same answer one after the other" do
    first = at_once({})
    expect(batches.pop).to eq([0])
    more = at_once({ seat_id: 7, save_no: 1 }, { seat_id: 7, save_no: 2 }, { seat_id: 8, save_no: 3 })
    let_through(3)
    expect([*first, *more].map(&:value)).to eq([0, 1, 2, 3])
    expect([batches.pop, batches.pop]).to eq([[1, 3], [2]])
  end

  it "writes each alone where the statement is refused, so that one costs no other anything" do
    refuse = -> { raise Sequel::DatabaseError, "no" }
    first = at_once({})
    expect(batches.pop).to eq([0])
    more = at_once({ save_no: 1 }, { save_no: 2, act: refuse }, { save_no: 3 })
    let_through(5)
    expect([*first, *more].map(&:value)).to eq([0, 1, "no", 3])
  end

  it "leaves nobody waiting when what writes dies, and finds another" do
    dying = at_once({ act: -> { Thread.exit } })
    expect(batches.pop).to eq([0])
    waiting = at_once({ seat_id: 7, save_no: 1 })
    let_through(1)
    expect([*dying, *waiting].map { |thread| thread.join(5)&.value }).to eq(["not written"] * 2)
    let_through(1)
    expect(at_once({ save_no: 5 }).first.join(5)&.value).to eq(5)
  end
end
