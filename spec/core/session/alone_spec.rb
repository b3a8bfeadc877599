# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Views::Alone do
  let(:lesson) do
    asked = Array.new(3) { |at| slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1], explanation: "So.")) }
    slides = [slide("s0")] + asked
    Roost::Core::Lesson.new(title: "Birds", slides: slides, sections: [section("quiz1", "quiz", slides.map(&:id))])
  end

  def sitting(at: 2, seen: %w[s0 q0], handed_in: nil, answered: %w[s0 q0], **rules)
    rules = rules.transform_keys(&:to_s)
    begun = Roost::Core::Session::Sitting.begin(%w[s0 q0 q1 q2], asked: %w[q0 q1 q2], now: 0.0, rules: rules)
    placed = begun.value.at(at, answered: answered)
    placed.class.new(**placed.to_h, seen: seen, handed_in_at: handed_in).freeze
  end

  def view(sitting, answers: { "q0" => answer(1, "q0", picked("o1")) }, closed: false, answered: %w[s0 q0], now: 10.0)
    described_class.of(lesson: lesson, sitting: sitting, answers: answers, answered: answered, now: now, closed: closed,
                       order: ->(_slide) {}, session_id: 1, title: "Quiz")
  end

  it "says what is answered, looked at and still to come, and where one may go" do
    shown = view(sitting)
    expect(shown.steps.map(&:state)).to eq(%i[answered answered waiting waiting])
    expect([shown.back.place, shown.following.place, shown.stage]).to eq([1, 3, :at_work])
    strict = view(sitting(must_answer: true, going_back: false, at: 3, answered: %w[s0 q0]))
    expect([strict.back, strict.following, strict.slide.id]).to eq([nil, nil, "q1"])
  end

  it "tells how one did as its rule says: never, at once for what is settled, or once it is over for all" do
    told = lambda do |feedback, **about|
      shown = view(sitting(feedback: feedback, handed_in: about[:handed_in]), **about.except(:handed_in))
      [shown.steps[1].outcome&.status, shown.own&.status, shown.explained]
    end
    draft = { "q0" => answer(1, "q0", picked("o2"), final: false) }
    expect(told.call("none", closed: true, handed_in: 5.0)).to eq([nil, nil, false])
    expect(told.call("right")).to eq([:right, :right, false])
    expect(told.call("explained", answers: draft)).to eq([nil, nil, true])
    late = view(sitting(feedback: "explained", limit: 5), answers: draft, closed: true)
    expect([late.stage, late.steps[1].outcome.status, late.steps[2].outcome.status]).to eq(%i[over wrong not_reached])
    expect(told.call("end", handed_in: 5.0)).to eq([nil, nil, false])
    expect(told.call("end", closed: true)).to eq([nil, nil, false])
    expect(told.call("end", closed: true, handed_in: 5.0)).to eq([:right, :right, true])
  end

  it "tells blank from not reached, and stages" do
    shown = view(sitting(handed_in: 5.0, seen: %w[s0 q0 q1]), closed: true)
    expect(shown.steps.map { |step| step.outcome&.status }).to eq([nil, :right, :blank, :not_reached])
    expect([shown.stage, view(sitting(limit: 5)).stage]).to eq(%i[handed_in over])
  end
end
