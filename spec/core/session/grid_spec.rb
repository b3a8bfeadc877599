# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Views::Grid do
  let(:lesson) do
    asked = Array.new(3) { |at| slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1])) }
    slides = [slide("r1"), *asked, slide("q3", prompt: writing(id: "p3"))]
    Roost::Core::Lesson.new(title: "Birds", slides: slides, sections: [section("quiz1", "quiz", slides.map(&:id))])
  end
  let(:seats) do
    %w[Ada Bo Cleo Dev].each_with_index.map { |name, at| Roost::Core::Session::Seat.new(id: at + 1, name: name, here: true).freeze }
  end

  def sitting(slides: %w[r1 q0 q1 q2 q3], at: 1, seen: %w[r1], moved_at: 1000.0, **more)
    Roost::Core::Session::Sitting.new(attempt: 1, slides: slides, place: at, first_open: 1, last_open: slides.length, rules: {},
                                      started_at: 0.0, seen: seen, moved_at: moved_at, **more).freeze
  end

  def grid(sittings, **how) = described_class.of(moment(sittings, **how))

  # @param after [Roost::Core::Session::Moment, nil] the one before
  def moment(sittings, answers: {}, now: 1010.0, after: nil, set_aside: [])
    commands = Roost::Core::Session::Commands
    state = commands.call(lesson, room_options, Roost::Core::Session::State.start, "begin", {}, 0.0).value
    record = record_of(lesson: lesson, seats: seats, facts: state.facts.with(set_aside: set_aside),
                       answers: answers.transform_keys { |slide_id| [slide_id, 1] },
                       memory: after&.record&.memory || Roost::Core::Session::Memory.new)
    parts = { record: record, state: state, version: 1, code: "CDFGHJ" }
    Roost::Core::Session::Moment.new(**parts, sittings: sittings, now: now)
  end

  it "says of each student how every question stands, where they are, and how it goes" do
    unread = Roost::Core::Session::Answer.new(seat_id: 2, slide_id: "q1", typed: { "x" => ["y"] }, received_at: 0.0)
    answers = { "q0" => { 1 => answer(1, "q0", picked("o1"), final: false), 2 => answer(2, "q0", picked("o2")) },
                "q3" => { 1 => answer(1, "q3", { "text" => "Far" }) },
                "q1" => { 2 => unread } }
    rows = grid({ 1 => sitting(at: 3, seen: %w[r1 q0 q1]), 2 => sitting(handed_in_at: 900.0),
                  3 => sitting(slides: %w[r1 q2], deadline: 500.0) }, answers: answers).rows
    expect(rows.map(&:cells)).to eq([%i[right seen waiting given], %i[wrong unread waiting waiting],
                                     %i[left_out left_out waiting left_out], %i[waiting waiting waiting waiting]])
    expect(rows.map(&:state)).to eq(%i[at_work handed_in over waiting])
    expect(rows.map(&:at)).to eq([1, nil, nil, nil])
  end

  it "counts who has begun and is done, and the share of what each is asked" do
    answers = { "q0" => { 1 => answer(1, "q0", picked("o1")) }, "q2" => { 3 => answer(3, "q2", picked("o1")) } }
    found = grid({ 1 => sitting, 3 => sitting(slides: %w[r1 q2], handed_in_at: 5.0) }, answers: answers)
    expect([found.begun, found.done, found.share]).to eq([2, 1, 2 / 13.0])
  end

  it "says since when nothing new was heard of somebody who is here, once that is long" do
    stuck = ->(now) { grid({ 1 => sitting(moved_at: 1000.0) }, now: now).rows.first.stuck_since }
    expect([stuck.call(1100.0), stuck.call(1181.0)]).to eq([nil, 1000.0])
    late = { "q0" => { 1 => answer(1, "q0", picked("o1"), at: 1100.0) } }
    expect(grid({ 1 => sitting(moved_at: 1000.0) }, answers: late, now: 1181.0).rows.first.stuck_since).to be_nil
  end

  describe "of a moment after another" do
    let(:sittings) { (1..4).to_h { |id| [id, sitting] } }

    it "is what it would be from the start, whatever came" do
      PropCheck.forall(PropCheck::Generators.array(PropCheck::Generators.choose(0..51), max: 12)) do |picks|
        answers = {}
        now = sittings
        last = nil
        picks.each do |pick|
          what, seat = pick.divmod(4)
          seat += 1
          if what < 6 then answers = with_answer(answers, "q#{what % 3}", seat, "o#{1 + (what / 3)}")
          elsif what == 12 then answers = answers.except("q#{seat % 3}") # all are asked again
          else
            now = now.merge(seat => sitting(at: what - 5, seen: %w[r1 q0].first(1 + (what % 2)), moved_at: what.to_f))
          end
          last = moment(now, answers: answers, after: last)
          expect(described_class.of(last)).to eq(grid(now, answers: answers))
        end
      end
    end

    it "marks nothing of a question that was set aside meanwhile, and marks it again" do
      answers = with_answer({}, "q0", 1, "o1")
      cells = lambda do |after, set_aside|
        last = moment(sittings, answers: answers, after: after, set_aside: set_aside)
        [last, described_class.of(last).rows.first.cells.first]
      end
      marked, first = cells.call(nil, [])
      aside, second = cells.call(marked, %w[q0])
      expect([first, second, cells.call(aside, []).last]).to eq(%i[right given right])
    end

    it "costs about as much for one answer among forty questions as among five" do
      costs = [5, 40].map { |questions| cost_of_one(questions) }
      expect(costs.last / costs.first.to_f).to be < 2
    end

    def with_answer(answers, slide_id, seat, option)
      answers.merge(slide_id => answers.fetch(slide_id, {}).merge(seat => answer(seat, slide_id, picked(option))))
    end

    # Lines and calls that one more answer takes, of thirty who have answered all.
    def cost_of_one(questions)
      asked = Array.new(questions) { |at| slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1])) }
      quiz = Roost::Core::Lesson.new(title: "B", slides: asked, sections: [section("quiz1", "quiz", asked.map(&:id))])
      class_of = Array.new(30) { |at| Roost::Core::Session::Seat.new(id: at + 1, name: "S#{at}", here: true).freeze }
      allow(self).to receive_messages(lesson: quiz, seats: class_of)
      at_work = class_of.to_h { |seat| [seat.id, sitting(slides: asked.map(&:id))] }
      answers = asked.to_h { |each| [each.id, class_of.to_h { |seat| [seat.id, answer(seat.id, each.id, picked("o1"))] }] }
      first = moment(at_work, answers: answers).tap { |each| described_class.of(each) }
      second = moment(at_work, answers: with_answer(answers, "q0", 7, "o2"), after: first)
      Counting.steps { described_class.of(second) }
    end
  end
end
