# frozen_string_literal: true

RSpec.describe Roost::Core::Session::SeatViews do
  session = Roost::Core::Session
  let(:lesson) { marsh_lesson }
  let(:seats) do
    (1..1_000).map do |id|
      session::Seat.new(id: id, name: "Bird #{id}", here: true, practice: false, time_factor: id == 3 ? 3/2r : 1r).freeze
    end
  end
  let(:asked) { lesson.prompts.find { |slide| !slide.prompt.shuffle? } }

  def moment(answers: {})
    opening = Roost::Core::Session::Opening.begin(100.0, 20)
    state = Roost::Core::Session::State.start.with(phase: "live", slide_id: asked.id).opened(asked.id, opening)
    moment_of(state: state, answers: { asked.id => answers }, shown: {}, lesson: lesson, seats: seats)
  end

  def views(moment) = Roost::Core::Session::Views.seats(moment, seats.map(&:id))

  it "are one for all but who has answered and who has more time" do
    now = moment(answers: { 2 => answer(2, asked.id, picked("o1")) })
    found = views(now)
    expect(found.values.map(&:length)).to match_array([998, 1, 1])
    expect(found.find { |_, ids| ids == [2] }.first.own.value).to eq(picked("o1"))
    rest, longer = [[1], [3]].map { |ids| found.find { |_, all| (ids - all).empty? }.first }
    expect([rest.deadline, longer.deadline].map(&:to_f)).to eq([120.0, 130.0])
  end

  it "are what each would get who is asked for alone" do
    now = moment(answers: { 2 => answer(2, asked.id, picked("o1")) })
    found = views(now).flat_map { |view, ids| ids.map { |id| [id, view] } }.to_h
    [1, 2, 3, 999].each { |id| expect(session::Views.seats(now, [id]).keys).to eq([found[id]]) }
  end

  it "cost little for those who see the same" do
    now = moment
    views(now)
    expect(Counting.steps { views(now) }).to be < 12 * seats.length
  end
end
