# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::ClassOverTime do
  day = 86_400
  now = 200.0 * day

  def result(student, session, share, marked = 4)
    { student_id: student, session_id: session, share: share, right: 0, marked: marked }
  end

  let(:sessions) do
    [[1, 60, false], [2, 40, false], [3, 3, false], [4, 2, true]].map do |id, ago, alone|
      { id: id, title: "L#{id}", at: now - (ago * day), self_paced: alone }
    end
  end
  let(:results) do
    [result(1, 1, 1r), result(2, 1, 1/2r), result(3, 1, 0r), result(4, 1, 1/2r), result(1, 3, 1/2r, 2), result(2, 3, nil, 0),
     result(1, 4, 1r, 6)]
  end

  def earned(student, session, mark, names) = [analysis_earned(student, session, mark), names]

  def analysis_earned(student, session, mark)
    Roost::Core::Analysis::Mastery::Earned.new(student_id: student, mark: mark, weight: 1, session_id: session, slide_id: "s")
  end

  def time(marks = [])
    described_class.new(sessions: sessions, results: results, earned: marks, came: { 1 => 4, 3 => 2 }, now: 200.0 * 86_400)
  end

  it "is each session with who came, what was right of what was marked, and the middle half of the class" do
    found = time.sessions
    expect(found.map { |each| [each.title, each.came, each.share] })
      .to eq([["L1", 4, 1/2r], ["L2", 0, nil], ["L3", 2, 1/2r], ["L4", nil, 1]])
    expect(found.map(&:quartiles)).to eq([[3/8r, 5/8r], nil, nil, nil]) # 0, ½, ½, 1, type 7
  end

  it "is the share of each week in which something was marked" do
    expect(time.weeks.map(&:share)).to eq([1/2r, ((2 * 1/2r) + 6) / 8])
  end

  it "says what was gained and what was lost in the last four weeks" do
    old = [*[earned(1, 1, 1r, ["food"])] * 3, *[earned(2, 2, 0r, ["food"])] * 3]
    new = [*[earned(1, 3, 0r, ["food"])] * 3, *[earned(2, 3, 1r, ["food"])] * 40, *[earned(3, 3, 1r, %w[food sky])] * 3]
    expect(time(old).changes).to eq([])
    changes = time(old + new).changes
    expect(changes.map { |change| [change.name, change.gained, change.lost, change.having] })
      .to eq([["food", [2, 3], [1], 2], ["sky", [3], [], 1]])
  end

  it "is a student's line, of those sessions in which something of theirs was marked" do
    expect(time.line_of(1).map { |session, share| [session.id, share] }).to eq([[1, 1], [3, 1/2r], [4, 1]])
    expect([time.line_of(2).length, time.line_of(9)]).to eq([1, []])
  end
end
