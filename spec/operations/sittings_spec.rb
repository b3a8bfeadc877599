# frozen_string_literal: true

RSpec.describe "A student's sitting in a quiz" do
  let(:operation) { Roost::Operations::TakeSitting.new }
  let(:quiz) do
    slides = [slide("r1")] + Array.new(3) { |at| slide("q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1])) }
    Roost::Core::Lesson.new(title: "Birds", slides: slides,
                            sections: [section("quiz1", "quiz", slides.map(&:id), limit: 600, **rules)])
  end
  let(:rules) { {} }
  let(:session) { kept_session(teacher, quiz).tap { |row| command(row, "begin") } }
  let(:seat) { take_seat(session).first }

  def row = Roost::Store::Sessions.new.find(session.id)
  def take(seat = self.seat, to: nil) = operation.call(seat, row, to: to)
  def hand_in = Roost::Operations::HandInSitting.new.call(seat, take)
  def stored = Roost::Store::Answers.new.of(session.id).map(&:last).sort_by(&:slide_id)
  def record = Roost::Store::Records.new.of(row)

  it "begins once however many windows ask, and goes on where it was left, in another window too" do
    all = at_once([1, 2, 3, 4]) { take.kept.id }
    expect(all.uniq.length).to eq(1)
    take(to: 3)
    expect([take.sitting.place, take.sitting.seen]).to eq([3, %w[r1 q1]])
    command(session, "close")
    expect(take_seat(session, "Late").first.then { |late| take(late) }).to be_nil
  end

  def share = Roost::Core::Analysis::Results.new(record).line_of(seat[:id]).share

  it "counts drafts when it is handed in, as handed in; what was left out earns nothing, and nothing changes after" do
    take
    save(session, seat, "q0", picked("o1"), final: false)
    save(session, seat, "q1", { "options" => [] }, final: false)
    hand_in
    expect(stored.map { |each| [each.slide_id, each.final] }).to eq([["q0", true], ["q1", false]])
    expect(save(session, seat, "q0", picked("o2"), save_no: 2).state).not_to eq("final")
    expect(save(session, seat, "q2", picked("o1")).state).to eq("late")
    command(session, "close")
    put_back(session, 60, :opened_at)
    expect(%w[q0 q1 q2].map { |id| record.outcome(id, seat[:id]).status }).to eq(%i[right blank late])
    expect([share, record.asked_of(seat[:id]).map(&:id)]).to eq([1/3r, %w[q0 q1 q2]])
  end

  describe "of which each gets one question" do
    let(:rules) { { draw: 1 } }

    it "takes nothing, late either, for a question that it has not" do
      mine, other = take.sitting.slides.grep(/q/).then { |drawn| [drawn.first, (%w[q0 q1 q2] - drawn).first] }
      expect(save(session, seat, other, picked("o1")).state).to eq("refused")
      hand_in
      states = [other, mine].map { |id| save(session, seat, id, picked("o1"), save_no: 2).state }
      expect([states, stored.map(&:slide_id)]).to eq([%w[refused late], [mine]])
    end
  end

  it "is worth the same whether it is handed in or not, by all the questions it was given" do
    take
    save(session, seat, "q0", picked("o1"), final: false)
    shares = [method(:hand_in), -> {}].map do |ending|
      told = nil
      database.transaction(rollback: :always) do
        ending.call
        command(session, "close")
        put_back(session, 60, :opened_at)
        database[:sittings].update(window_ends_at: Sequel.lit("window_ends_at - interval '2 seconds'"))
        told = share
      end
      told
    end
    expect(shares).to eq([1/3r, 1/3r])
  end

  it "by earlier rules keeps its share of what was reached" do
    options = database[:sessions].where(id: session.id)
    options.update(options: Sequel.lit("options || '{\"rules_version\": 1}'"))
    take
    save(session, seat, "q0", picked("o1"), final: false)
    command(session, "close")
    put_back(session, 60, :opened_at)
    expect(share).to eq(1)
    options.update(options: Sequel.lit("options || '{\"rules_version\": 2}'"))
    expect(share).to eq(1/3r)
  end

  it "ends with the quiz: what was written before counts, unfinished, what comes later is late; not reached is not wrong" do
    take(to: 2)
    save(session, seat, "q0", picked("o1"), final: false)
    command(session, "close")
    put_back(session, 5, :closed_at)
    Roost::Store::Sittings.new.end_all(session.id, "quiz1", Roost::Store::Sessions.new.now - 5)
    expect(save(session, seat, "q1", picked("o1")).state).to eq("late")
    outcomes = %w[q0 q1 q2].map { |id| record.outcome(id, seat[:id]) }
    expect(outcomes.map(&:status)).to eq(%i[right late not_reached])
    expect([outcomes[0].unfinished, outcomes[1].answer.late]).to eq([true, true])
  end

  it "gets more time with all, or by itself, and a student the time that is theirs" do
    other = take_seat(session, "Bo").first
    ends = -> { [seat, other].map { |each| take(each).sitting.deadline.round } }
    before = ends.call
    command(session, "more_time", seconds: "60")
    command(session, "more_time", seconds: "300", seat: other[:id].to_s)
    expect(ends.call.zip(before).map { |after, first| after - first }).to eq([60, 360])
    command(session, "close")
    command(session, "open")
    expect(take.sitting.window_ends_at).to be_nil
  end

  it "gives who has more time more of it" do
    named = { name: "Cleo Okafor", shown_name: "Cleo", time_factor: "1.5" }
    person = Roost::Store::Students.new.create(session.account_id, [named]).first
    Roost::Store::Seats.new.belong(seat[:id], student_id: person, team_id: nil)
    expect(take.sitting.then { |each| (each.deadline - each.started_at).round }).to eq(900)
  end

  context "when a question has to be answered before the next" do
    let(:rules) { { must_answer: true } }

    it "goes no further, and takes no answer to what lies beyond" do
      expect(take(to: 4).sitting.place).to eq(2)
      expect(save(session, seat, "q2", picked("o1")).state).to eq("refused")
      save(session, seat, "q0", picked("o2"), final: false)
      expect(take(to: 4).sitting.place).to eq(3)
    end
  end

  context "when it is told at once how one did" do
    let(:rules) { { feedback: "right" } }

    it "is settled by that" do
      take
      expect(save(session, seat, "q0", picked("o2")).state).to eq("final")
      expect(save(session, seat, "q0", picked("o1"), save_no: 2).state).to eq("refused")
    end
  end
end
