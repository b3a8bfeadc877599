# frozen_string_literal: true

RSpec.describe Roost::Live::WorkQueue do
  let(:time) { [0.0] }
  let(:agenda) { described_class.new(clock: -> { time[0] }) }

  def taken = agenda.take.tap { |id, _| agenda.done(id) if id }

  it "gives a session to one at a time, with all that came meanwhile" do
    agenda.add(1, [:answers])
    expect(agenda.take).to eq([1, Set[:answers]])
    agenda.add(1, [:state])
    agenda.add(2, [:people])
    agenda.add(1, [:answers])
    expect(agenda.take).to eq([2, Set[:people]])
    agenda.done(1)
    expect(agenda.take).to eq([1, Set[:state, :answers]])
  end

  it "puts off what is to come later, unless something else comes first" do
    agenda.add(1, [:answers], after: 0.02)
    agenda.add(2, [:state])
    expect(taken[0]).to eq(2)
    time[0] = 0.02
    expect(taken[0]).to eq(1)
    agenda.add(1, [:answers], after: 5)
    agenda.add(1, [:state])
    expect(taken).to eq([1, Set[:answers, :state]])
  end

  it "has what failed up again after pauses that grow to five seconds, and others meanwhile" do
    agenda.add(1, [:state])
    pauses = Array.new(10) do
      id, scopes = agenda.take
      agenda.done(id, failed: scopes)
      agenda.add(id, [:answers]) # does not cut the pause short
      agenda.add(2, [:state])
      expect(taken[0]).to eq(2)
      before = time[0]
      time[0] += 0.01 until agenda.instance_variable_get(:@due)[1] <= time[0]
      (time[0] - before).floor(1)
    end
    expect(pauses).to eq([0.1, 0.2, 0.4, 0.8, 1.6, 3.2, 5.0, 5.0, 5.0, 5.0])
    expect(taken).to eq([1, Set[:state, :answers]])
    agenda.add(1, [:state])
    expect(taken[0]).to eq(1)
  end
end
