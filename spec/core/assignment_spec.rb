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
              ["q2", 1] => { 7 => answer(7, "q2", picked("o1")) }, ["q1", 2] => { 7 => answer(7, "q1", picked("o1")) } }
    count = lambda do |counts, **more|
      Roost::Core::Session::CountedAttempts.new(given, { ["q2", 2] => { 7 => 1.0 } }, lesson: keyed, counts: counts, **more)
    end
    expect(%w[best first last mean].map { |counts| count.call(counts).answers.transform_values(&:keys) })
      .to eq([*[{ ["q1", 1] => [7, 8], ["q2", 1] => [7] }] * 2, *[{ ["q1", 1] => [8, 7] }] * 2])
    expect(count.call("last").shown).to eq({ ["q2", 1] => { 7 => 1.0 } })
    # All right the first time; the second, one right and one left out. The other student did it once.
    expect(count.call("mean").shares).to eq({ 7 => 3/4r })
    expect(count.call("mean", set_aside: ["q2"]).shares).to eq({ 7 => 1 })
    expect(count.call("best").shares).to eq({})
  end
end
