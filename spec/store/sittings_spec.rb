# frozen_string_literal: true

RSpec.describe Roost::Store::Sittings do
  let(:session) { kept_session(teacher) }
  let(:seat) { take_seat(session).first }
  let(:sittings) { described_class.new }

  def begin_one(attempt: 1, **rules)
    made = Roost::Core::Session::Sitting.begin(%w[s2 s3 s4], asked: %w[s2 s3 s4], now: sittings.now, attempt: attempt,
                                                             rules: { "attempts" => nil, **rules.transform_keys(&:to_s) }).value
    [sittings.create(session.id, seat[:id], "round", made), made]
  end

  it "gives back what was kept, and begins an attempt once" do
    id, made = begin_one(limit: 600, must_answer: true)
    found = sittings.find(id).sitting
    times = %i[started_at deadline moved_at]
    expect(found.to_h.except(*times)).to eq(made.to_h.except(*times))
    expect([found.started_at,
            found.deadline]).to match([be_within(0.001).of(made.started_at), be_within(0.001).of(made.deadline)])
    expect(begin_one.first).to be_nil
    begin_one(attempt: 2)
    expect(sittings.of_seat(seat[:id], "round").map { |kept| kept.sitting.attempt }).to eq([1, 2])
    expect(sittings.of(session.id, "round").length).to eq(2)
  end

  it "lets answers count while it is open and where it may be, and none afterwards" do
    id, made = begin_one(must_answer: true)
    expect(save(session, seat, "s2", picked("o1")).state).to eq("final")
    expect(save(session, seat, "s3", picked("o1")).state).to eq("refused")
    sittings.update(id, made.at(2, answered: %w[s2]))
    expect(save(session, seat, "s4", { "text" => ["By the stars"] }).state).to eq("refused")
    sittings.update(id, made.at(3, answered: %w[s2 s3]))
    expect(save(session, seat, "s4", { "text" => ["By the stars"] }).state).to eq("final")
    sittings.update(id, made.handed_in(sittings.now))
    expect(save(session, seat, "s2", picked("o2"), save_no: 2).state).to eq("refused")
  end

  it "keeps attempts apart, and the time spent on each slide" do
    id, = begin_one
    begin_one(attempt: 2)
    first, second = [["o1", 1], ["o2", 2]].map { |option, attempt| save(session, seat, "s2", picked(option), attempt: attempt) }
    expect([first.state, second.state]).to eq(%w[final final])
    answers = Roost::Store::Answers.new.by_question(session.id)
    options = answers.transform_values { |set| set.to_h[seat[:id]].value["options"] }
    expect(options).to eq({ ["s2", 1] => %w[o1], ["s2", 2] => %w[o2] })
    [1, 2, 1].each { |place| sittings.find(id).then { |kept| sittings.move(kept, kept.sitting.at(place, answered: [])) } }
    stale = sittings.find(id)
    sittings.move(stale, stale.sitting.at(3, answered: []))
    expect(sittings.move(stale, stale.sitting.at(2, answered: []))).to be_nil
    sittings.find(id).then { |kept| sittings.move(kept, kept.sitting.at(1, answered: [])) }
    sittings.seen(id)
    expect(sittings.find(id).sitting.seen).to eq(%w[s2 s3 s4])
    expect(sittings.visits(id).map do |visit|
      [visit.slide_id, visit.ended_at.nil?]
    end).to eq([["s2", false], ["s3", false], ["s2", false], ["s4", false], ["s2", true]])
  end
end
