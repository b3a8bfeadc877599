# frozen_string_literal: true

RSpec.describe Roost::Core::Session::LineDelay do
  line_delay = described_class
  line = line_delay::Line
  claim = line_delay::Claim.new(elapsed: 3.0, tries: 3)
  good = line.new(heard_at: 118.0, round_trip: 0.2)

  def excuses?(claim, line, now:, sent_at: 100.0, ended: 120.0)
    Roost::Core::Session::LineDelay.excuses?(claim, sent_at: sent_at, ended: ended, now: now, line: line)
  end

  # When heartbeats go out that are to be answered: every 5 s, and when answering has ended at 120.
  let(:asks) { ((0..30).map { |number| 90.0 + (number * 5) } << 121.0).sort }

  # What the server knows at a time of a device that answers each after the round trip, or as soon as a
  # gap in the line is over.
  def known(now, gap:, round_trip:)
    asks.select { |at| at <= now }.each_with_object(Roost::Core::Session::LineDelay::Line.new) do |asked, line|
      next if line.asked_at || (line.heard_at && line.heard_at > asked) # one without an answer is out

      line.asked_at = asked
      answered = gap.cover?(asked) || gap.cover?(asked + round_trip) ? gap.end + round_trip : asked + round_trip
      hear(line, answered) if answered <= now
    end
  end

  def hear(line, now)
    if now - line.asked_at > Roost::Core::Session::LineDelay::PROMPT
      line.bad_from = line.heard_at || line.asked_at
      line.bad_until = now
    end
    line.round_trip = now - line.asked_at
    line.heard_at = now
    line.asked_at = nil
  end

  it "believes a device that was out of reach when answering ended, for ten seconds" do
    silent = line.new(heard_at: 117.0, asked_at: 118.0, round_trip: 0.5)
    expect([121.5, 125.0, 130.0, 130.1].map { |now| excuses?(claim, silent, now: now) }).to eq([true, true, true, false])
  end

  it "believes a device whose line has come back no longer than a try and a pause take" do
    back = line.new(heard_at: 118.5, bad_from: 110.0, bad_until: 118.0, round_trip: 0.2)
    expect([128.9, 129.1].map { |now| excuses?(claim, back, now: now) }).to eq([true, false])
  end

  it "believes none whose line was good, whatever its clock says" do
    expect([121.1, 121.3, 124.0].map { |now| excuses?(claim, good, now: now) }).to eq([true, false, false])
  end

  it "believes none that says itself that time was over, or that was never sent the question" do
    silent = line.new(heard_at: 117.0, asked_at: 118.0, round_trip: 0.5)
    over = line_delay::Claim.new(elapsed: 20.5, tries: 3)
    expect([excuses?(over, silent, now: 124.0), excuses?(claim, silent, now: 124.0, sent_at: nil)]).to eq([false, false])
  end

  it "believes a first try only as long as a device waits for one" do
    first = line_delay::Claim.new(elapsed: 3.0, tries: 1)
    silent = line.new(heard_at: 117.0, asked_at: 118.0, round_trip: 0.5)
    expect([129.0, 129.1].map { |now| excuses?(first, silent, now: now) }).to eq([true, false])
  end

  it "knows nothing of a device that has never answered, and believes it nothing" do
    expect(excuses?(claim, line.new(asked_at: 118.0), now: 122.0)).to be(false)
  end

  it "reads only claims that are whole numbers within bounds" do
    expect(line_delay.claim({ "elapsed" => 3000, "tries" => 2 })).to eq(line_delay::Claim.new(elapsed: 3.0, tries: 2))
    [{}, { "elapsed" => -1, "tries" => 1 }, { "elapsed" => 1.5, "tries" => 1 }, { "elapsed" => 1, "tries" => 0 },
     { "elapsed" => "1", "tries" => 1 }, { "elapsed" => 1e300.to_i, "tries" => 1 }].each do |message|
      expect(line_delay.claim(message)).to be_nil
    end
  end

  # A device tries again after a pause, and as soon as it hears something.
  it "excuses whoever answered in time and was cut off, within ten seconds" do
    tenths = ->(range) { PropCheck::Generators.choose(range).map { |number| number / 10.0 } }
    times = [10..200, 15..140, 1..8, 0..30].map(&tenths)
    PropCheck.forall(*times) do |before, lasting, trip, pause|
      gap = (120.0 - before)..(120.0 - before + lasting)
      now = [gap.end + pause, asks.find { |at| at >= gap.end }].min + trip
      next if now <= 121 || now > 130

      said = line_delay::Claim.new(elapsed: [gap.begin - 100.0, 0].max, tries: 4)
      expect(excuses?(said, known(now, gap: gap, round_trip: trip), now: now)).to be(true), "gap #{gap}, at #{now}, trip #{trip}"
    end
  end

  it "gives a changed clock no more than a round trip, where the line is good" do
    PropCheck.forall(PropCheck::Generators.choose(0..200), PropCheck::Generators.choose(0..150),
                     PropCheck::Generators.choose(1..9), PropCheck::Generators.choose(1..50)) do |elapsed, late, trip, tries|
      now = 120.0 + (late / 10.0)
      said = line_delay::Claim.new(elapsed: elapsed / 10.0, tries: tries)
      known = known(now, gap: 0.0..0.0, round_trip: trip / 10.0)
      expect(now).to be <= 121.0 + (trip / 10.0) + 0.001 if excuses?(said, known, now: now)
    end
  end
end
