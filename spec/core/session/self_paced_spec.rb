# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Views::SelfPaced do
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

  def view(sitting, answers: { "q0" => answer(1, "q0", picked("o1")) }, open: true, contested: true, answered: %w[s0 q0],
           now: 10.0)
    described_class.of(lesson: lesson, sitting: sitting, answers: answers, answered: answered, now: now, open: open,
                       contested: contested, order: ->(_slide) {}, session_id: 1, title: "Quiz")
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
      [shown.steps[1].outcome&.status, shown.own&.status, shown.steps[1].explained]
    end
    closed = { open: false, contested: false }
    draft = { "q0" => answer(1, "q0", picked("o2"), final: false) }
    expect(told.call("none", **closed, handed_in: 5.0)).to eq([nil, nil, false])
    expect(told.call("right")).to eq([:right, :right, false])
    expect(told.call("right", **closed, handed_in: 5.0)).to eq([:right, :right, false])
    expect(told.call("explained", answers: draft)).to eq([nil, nil, false])
    expect(told.call("explained")).to eq([:right, :right, true])
    expect(told.call("end", handed_in: 5.0)).to eq([nil, nil, false])
    expect(told.call("end", **closed)).to eq([nil, nil, false])
    expect(told.call("end", **closed, handed_in: 5.0)).to eq([:right, :right, true])
    expect(told.call("end", open: false, contested: true, handed_in: 5.0)).to eq([:right, :right, false])
  end

  it "tells nothing before the second of grace is over" do
    draft = { "q0" => answer(1, "q0", picked("o2"), final: false) }
    at = ->(now) { view(sitting(feedback: "explained", limit: 5), answers: draft, open: false, contested: false, now: now) }
    expect([at.call(5.9).stage, at.call(5.9).steps.map(&:outcome)]).to eq([:over, [nil] * 4])
    expect(at.call(6.1).steps.map { |step| step.outcome&.status }).to eq([nil, :wrong, :not_reached, :not_reached])
  end

  it "explains a blank only once nobody can use it any more" do
    blank = lambda { |contested|
      view(sitting(feedback: "explained", handed_in: 5.0), answers: {}, answered: %w[s0], contested: contested)
    }
    expect(blank.call(true).steps.map { |step| [step.outcome&.status, step.explained] }.drop(1))
      .to eq([[:blank, false], [:not_reached, false], [:not_reached, false]])
    expect(blank.call(false).steps.drop(1).map(&:explained)).to all(be(true))
  end

  it "tells blank from not reached, and stages" do
    shown = view(sitting(handed_in: 5.0, seen: %w[s0 q0 q1]), open: false, contested: false)
    expect(shown.steps.map { |step| step.outcome&.status }).to eq([nil, :right, :blank, :not_reached])
    expect([shown.stage, view(sitting(limit: 5)).stage]).to eq(%i[handed_in over])
  end
end
