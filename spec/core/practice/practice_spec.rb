# frozen_string_literal: true

RSpec.describe Roost::Core::Practice do
  let(:students) { described_class::Roster.students(400, seed: 7) }

  it "is the same class for the same seed" do
    again = described_class::Roster.students(400, seed: 7)
    expect(again.map { |student| [student.name, student.ability, student.habit] })
      .to eq(students.map { |student| [student.name, student.ability, student.habit] })
    expect(students.map(&:name).uniq.length).to eq(400)
  end

  it "recovers the order of difficulties in the facilities over 400 seats" do
    facilities = [-1.5, -0.5, 0.5, 1.5].map do |difficulty|
      prompt = choice(id: "p#{difficulty}", keys: ["o1"], difficulty: difficulty)
      students.each_with_index.sum do |student, place|
        prompt.mark(described_class::Plan.of(student, place, prompt, seed: 3).value)
      end / 400.0
    end
    expect(facilities).to eq(facilities.sort.reverse)
    expect(facilities.first - facilities.last).to be > 0.3
  end

  it "plans the same answer and time whoever asks, within the limit of three medians" do
    prompt = game_choice
    plans = Array.new(2) do
      students.each_with_index.map do |student, place|
        described_class::Plan.of(student, place, prompt, seed: 3)
      end
    end
    expect(plans[0]).to eq(plans[1])
    expect(plans[0].map(&:seconds)).to all(be_between(1, 27))
    expect(plans[0].map { |plan| prompt.read(plan.value) }).to all(be_ok)
  end
end

RSpec.describe Roost::Core::Analysis::Results do
  it "never mixes up no answer and not reached in averages" do
    lesson = Roost::Core::Lesson.new(title: "T", slides: [slide("s1", prompt: choice(keys: ["o1"]))])
    state = Roost::Core::Session::Commands.call(lesson, room_options, Roost::Core::Session::State.start, "begin", {}, 10.0).value
    seats = (1..3).map { |id| Roost::Core::Session::Seat.new(id: id, name: "Student #{id}", here: true) }
    moment = moment_of(
      id: 1, title: "T", code: "ABC234", lesson: lesson, options: room_options, state: state, version: 1, seats: seats,
      answers: { "s1" => { 1 => answer(1, "s1", picked("o1"), at: 14.0) } }, shown: { "s1" => { 1 => 10.0, 2 => 10.0 } }
    )
    results = described_class.new(moment.record)
    expect(results.questions.first.to_h).to include(reached: 2, answered: 1, facility: 1/2r)
    expect(results.median_seconds(results.slides.first)).to eq(4.0)
    expect(results.lines.map do |line|
      [line.share, line.outcomes["s1"].status]
    end).to eq([[1, :right], [0, :blank], [nil, :not_reached]])
    expect(results.share).to eq(1/2r)
  end
end
