# frozen_string_literal: true

RSpec.describe Roost::Live::Throttle do
  let(:time) { [100.0] }
  let(:rounds) { described_class.new(clock: -> { time[0] }) }

  def serve(session_id, seconds) = rounds.serve(session_id) { time[0] += seconds }

  it "let a session rest three times as long as all of them take, and no longer than so much" do
    expect(rounds.rest(1)).to eq(0)
    serve(1, 0.02)
    expect(rounds.rest(1)).to be_within(1e-6).of(0.06)
    serve(2, 0.03)
    expect([rounds.rest(1), rounds.rest(2)]).to match([be_within(1e-6).of(0.03), be_within(1e-6).of(0.15)])
    serve(1, 0.01)
    expect(rounds.rest(1)).to be_within(1e-6).of(0.12)
    (3..40).each { |id| serve(id, 0.1) }
    expect(rounds.rest(40)).to be_within(1e-6).of(0.2)
    time[0] += 0.2
    expect(rounds.rest(40)).to be_within(1e-6).of(0)
  end

  it "forget those that are looked at no more, and count what failed" do
    expect { rounds.serve(1) { (time[0] += 0.03) && raise(IOError) } }.to raise_error(IOError)
    serve(2, 0.01)
    expect(rounds.rest(2)).to be_within(1e-6).of(0.12)
    rounds.keep_only([2])
    serve(2, 0.02)
    expect(rounds.rest(2)).to be_within(1e-6).of(0.06)
  end
end
