# frozen_string_literal: true

RSpec.describe Roost::Core::Session::Assignment do
  let(:time) { Roost::Exchange::SchoolTime.new("Europe/London") }
  let(:now) { Time.utc(2026, 11, 26, 9).to_f }
  let(:lesson) do
    Roost::Core::Lesson.new(title: "Birds", slides: [slide("s1"), slide("s2", prompt: choice), slide("s3")],
                            sections: [section("a", "quiz", %w[s2]), section("b", "paced", %w[s3])])
  end

  def read(**form)
    form = { opens_at: "2026-11-30T08:00", closes_at: "2026-12-04T18:00" }.merge(form).transform_keys(&:to_s)
    described_class.read(form, lesson: lesson, time: time, now: now)
  end

  it "is read from a form with plain defaults, and gives all of the lesson or some sections" do
    given = read.value
    expect([time.say(given.opens_at), time.say(given.closes_at)]).to eq(["Mon 30 Nov, 08:00", "Fri 4 Dec, 18:00"])
    expect(given.rules).to include("attempts" => 1, "counts" => "best", "feedback" => "end", "limit" => nil)
    expect(given.slides(lesson).map(&:id)).to eq(%w[s1 s2 s3])
    expect(read(sections: %w[b none], attempts: "").value.then { |each| [each.slides(lesson).map(&:id), each.rules["attempts"]] })
      .to eq([%w[s3], nil])
    expect([now, now + (5 * 86_400), now + (9 * 86_400)].map { |at| given.stage(at) }).to eq(%i[coming open closed])
  end

  it "refuses in a sentence what can't be" do
    refused = [read(opens_at: "soon"), read(closes_at: "2026-02-31T08:00"), read(closes_at: "2026-11-30T08:00"),
               read(opens_at: "2026-11-01T08:00", closes_at: "2026-11-02T08:00"), read(closes_at: "2029-01-01T08:00"),
               read(limit: "-3"), read(opens_at: "2026-11-30T25:00")]
    expect(refused.map(&:reason)).to all(match(/\A[A-Z].*\.\z/))
  end

  it "counts the best of several attempts, the first, the last, or the mean share of all" do
    asked = %w[q1 q2].map { |id| slide(id, prompt: choice(id: "p#{id}", keys: %w[o1])) }
    keyed = Roost::Core::Lesson.new(title: "Birds", slides: asked)
    given = { ["q1", 1] => { 7 => answer(7, "q1", picked("o1")), 8 => answer(8, "q1", picked("o2")) },
              ["q2", 1] => { 7 => answer(7, "q2", picked("o1")) },
              ["q1", 2] => { 7 => answer(7, "q1", picked("o2"), attempt: 2) } }
    seats = [7, 8].map { |id| Roost::Core::Session::Seat.new(id: id, name: "S#{id}").freeze }
    count = lambda do |counts, set_aside: []|
      record_of(lesson: keyed, seats: seats, answers: given, shown: { ["q2", 2] => { 7 => 1.0 } }, counts: counts,
                facts: Roost::Core::Session::Facts.of(set_aside: set_aside))
    end
    of_seven = ->(record) { %w[q1 q2].map { |id| [record.attempt(id, 7), record.outcome(id, 7).mark, record.shown_at(id, 7)] } }
    expect(%w[best first last mean].map { |counts| of_seven.call(count.call(counts)) })
      .to eq([*[[[1, 1, nil], [1, 1, nil]]] * 2, *[[[2, 0, nil], [2, 0, 1.0]]] * 2])
    # All right the first time; the second, one wrong and one left out. The other student did it once.
    expect([7, 8].map { |id| count.call("mean").mean_share(id) }).to eq([1/2r, nil])
    expect(count.call("mean", set_aside: ["q2"]).mean_share(7)).to eq(1/2r)
    expect(count.call("best").mean_share(7)).to be_nil
    given = count.call("best").attempts("q1", 7).transform_values { |each| each.value["options"] }
    expect(given).to eq({ 1 => ["o1"], 2 => ["o2"] })
  end

  it "lets no practice question choose the best, and of equal ones takes the later" do
    asked = { "q1" => {}, "q2" => { practice: true } }.map do |id, about|
      slide(id, prompt: choice(id: "p#{id}", keys: %w[o1], **about))
    end
    lesson = Roost::Core::Lesson.new(title: "Birds", slides: asked)
    give = ->(attempt, *picks) { %w[q1 q2].zip(picks).to_h { |id, pick| [[id, attempt], { 7 => answer(7, id, picked(pick)) }] } }
    best = lambda do |*runs|
      given = runs.each.with_index(1).map { |picks, attempt| give.call(attempt, *picks) }.reduce(:merge)
      record_of(lesson: lesson, seats: [Roost::Core::Session::Seat.new(id: 7, name: "Ada")], answers: given, counts: "best")
        .attempt("q1", 7)
    end
    expect(best.call(%w[o1 o2], %w[o2 o1])).to eq(1)
    expect(best.call(%w[o1 o1], %w[o1 o2])).to eq(2)
  end
end
