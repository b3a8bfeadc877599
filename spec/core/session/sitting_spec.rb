# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Sitting do
  slides = %w[s1 s2 s3 s4 s5 s6]
  asked = %w[s2 s3 s4 s5 s6]

  define_method(:sitting) do |now: 100.0, attempt: 1, **more|
    rules = more.slice(:must_answer, :going_back, :shuffled, :draw, :limit, :attempts, :counts).transform_keys(&:to_s)
    described_class.begin(slides, asked: asked, rules: rules, now: now, attempt: attempt,
**more.slice(:window, :time_factor, :seed))
  end

  it "begins within its window, as often as there are attempts" do
    expect(sitting(window: [101.0, 200.0]).reason).to eq("This isn't open yet.")
    expect(sitting(now: 200.0, window: [101.0, 200.0]).reason).to eq("The time for this is over.")
    expect(sitting(attempt: 2).reason).to eq("No attempt is left.")
    expect(sitting(attempt: 40, attempts: nil)).to be_ok
  end

  it "ends with the student's own time or with the window, whichever is first" do
    expect(sitting(limit: 600, time_factor: 1.5).value.ends_at).to eq(1000.0)
    expect(sitting(limit: 600, time_factor: 2, window: [0.0, 900.0]).value.ends_at).to eq(900.0)
    expect(sitting.value.ends_at).to be_nil
    extended = sitting(limit: 60).value.extended(30)
    expect([159.0, 191.0].map { |now| extended.over?(now) }).to eq([false, true])
  end

  it "covers answers until a second after its end, and none once it is handed in" do
    timed = sitting(limit: 60).value
    expect([99.0, 100.0, 161.0, 161.1].map { |time| timed.cover?(time, "s2") }).to eq([false, true, true, false])
    expect(timed.handed_in(120.0).cover?(110.0, "s2")).to be(false)
    expect(timed.cover?(110.0, "s9")).to be(false)
  end

  it "may be anywhere, no further than the first unanswered, or only forward, as the rules say" do
    expect(sitting.value.at(5, answered: [])).to have_attributes(place: 5, first_open: 1, last_open: 6)
    strict = sitting(must_answer: true).value
    expect(strict.at(5, answered: %w[s1])).to have_attributes(place: 2, first_open: 1, last_open: 2)
    expect(strict.at(5, answered: %w[s1 s2 s3])).to have_attributes(place: 4, last_open: 4)
    forward = sitting(going_back: false).value.at(3, answered: [])
    expect(forward).to have_attributes(place: 3, first_open: 3, last_open: 3)
    expect(forward.at(1, answered: [])).to have_attributes(place: 3)
    both = sitting(going_back: false, must_answer: true).value.at(4, answered: %w[s1 s2])
    expect(both).to have_attributes(place: 3, first_open: 3, last_open: 3)
    expect(both.at(9, answered: slides)).to have_attributes(place: 6)
  end

  it "draws and shuffles by its seed: the same ones after a reload, others at another seat and attempt" do
    drawn = ->(seed, attempt = 1) { sitting(draw: 2, shuffled: true, seed: seed, attempt: attempt, attempts: nil).value.slides }
    expect(drawn.call("a")).to eq(drawn.call("a"))
    expect(Array.new(40) { |seat| drawn.call(seat.to_s) }.uniq.length).to be > 10
    expect(Array.new(40) { |attempt| drawn.call("a", attempt + 1) }.uniq.length).to be > 10
    expect(Array.new(40) { |seat| drawn.call(seat.to_s) }).to all(include("s1").and(have_attributes(length: 3)))
  end

  it "says what is done" do
    seen = described_class.new(**sitting.value.to_h, seen: %w[s2 s3])
    expect(seen.progress(answered: %w[s2]).values_at("s2", "s3", "s4")).to eq(%i[answered seen waiting])
  end

  it "sums the time of the visits, which end with the next or five minutes after the last sign of life" do
    visit = Roost::Core::Session::Visit
    visits = [visit.new(slide_id: "s2", began_at: 0.0, seen_at: 20.0, ended_at: 30.0),
              visit.new(slide_id: "s3", began_at: 30.0, seen_at: 40.0, ended_at: 1000.0),
              visit.new(slide_id: "s2", began_at: 1000.0, seen_at: 1010.0, ended_at: nil)]
    expect(visit.spent(visits, 1020.0)).to eq("s2" => 50.0, "s3" => 310.0)
  end
end
