# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::BringBack do
  day = 86_400
  let(:now) { 100.0 * day }

  def asked(id, days, share, marks: 20)
    described_class::Asked.new(origin: id, session_id: 1, slide_id: "s#{id}", share: share, marks: marks,
                               at: now - (days * 86_400))
  end

  it "puts first what the class did not have, and what it had but long ago; what was just asked not at all" do
    needs = described_class.of([asked("weak", 42, 48/100r), asked("known", 42, 1r), asked("new", 0, 0r), asked("twice", 80, 1r),
                                asked("twice", 42, 9/10r)], now: now)
    expect(needs.map { |need| need.last.origin }).to eq(%w[weak twice known new])
    expect(needs.first.need).to be_within(0.001).of((1 - 0.2827) * (1 - (2**-21)))
    expect(needs.map { |need| need.steps.last.value }).to eq(needs.map(&:need))
    expect(Roost::Web::Why.sentences(needs.first.steps)).to eq(
      ["48 % of 20 marks: at least 28 % is certain (lower end of the 95 % interval).",
       "After 42 days, with half forgotten after 2: 100 % is forgotten.", "(100 % − 28 %) × 100 % = 72 % need."]
    )
    expect([needs.first.days, needs.first.last.share, needs.last.need]).to eq([42.0, 48/100r, 0.0])
  end

  it "forgets half as fast after each time the class had it, and as fast as ever after one when it had not" do
    days = 4
    need = lambda do |*shares|
      times = shares.each_with_index.map { |share, at| asked("q", days + shares.length - 1 - at, share) }
      described_class.of(times, now: now)
    end
    forgetting = ->(half_life) { 1 - (2**(-days / half_life)) }
    lower = Roost::Core::Analysis::Wilson.interval(20, 20).first
    expect(need.call(1r).first.need).to be_within(1e-9).of((1 - lower) * forgetting.call(4.0))
    expect(need.call(1r, 1r).first.need).to be_within(1e-9).of((1 - lower) * forgetting.call(8.0))
    expect(need.call(1r, 0r, 1r).first.need).to be_within(1e-9).of((1 - lower) * forgetting.call(4.0))
  end

  it "has Wilson's interval: three right of four lie between 0.301 and 0.954" do
    expect(Roost::Core::Analysis::Wilson.interval(3, 4).map { |each| each.round(3) }).to eq([0.301, 0.954])
    expect(Roost::Core::Analysis::Wilson.interval(0, 1).first).to eq(0.0)
  end
end
