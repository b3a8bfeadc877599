# frozen_string_literal: true

RSpec.describe Roost::Operations::WhoHasIt do
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:lesson) do
    prompts = [["food", %w[o1]], ["food", %w[o1]], ["food", %w[o1]], ["weather", %w[o1]], [nil, %w[o1]]]
    slides = prompts.each_with_index.map do |(tag, keys), at|
      slide("s#{at}", prompt: choice(id: "p#{at}", texts: %w[A B], keys: keys, subtopics: [tag].compact))
    end
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:students) { Roost::Store::Students.new.of_class(klass) }

  before { Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm\nBo Lind\nCleo Marsh").value) }

  # @param given [Hash{String=>String}] shown name to a letter each question: 1 right, 2 wrong, - nothing
  def hold(given)
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1" }
    row = Roost::Operations::StartSession.new.call(account, kept_lesson(account, lesson), form).value
    seats = given.to_h do |name, _|
      student = students.find { |each| each.shown_name.start_with?(name) }
      token = Roost::Operations::JoinSession.new.call(row.code, "", student_id: student.id).value
      [name, Roost::Store::Seats.new.by_token(token)]
    end
    command(row, "begin")
    lesson.slides.each_with_index do |each, at|
      command(row, "jump", slide: each.id)
      given.each { |name, row_of| save(row, seats[name], each.id, picked("o#{row_of[at]}")) unless row_of[at] == "-" }
    end
    command(row, "end")
    row
  end

  def overview(**how) = described_class.new.call(account, klass, **how)

  def state(overview, name, about)
    student = overview.students.find { |each| each.shown_name.start_with?(name) }
    overview.cell(student, about)&.then { |cell| [cell.state, cell.share, cell.marks] }
  end

  it "tells apart who has it, who doesn't yet, and of whom too little was seen" do
    hold({ "Ada" => "11111", "Bo" => "12211" })
    found = overview
    expect(found.names).to eq(%w[food weather])
    expect(state(found, "Ada", "food")).to eq([:has, 1, 3])
    expect(state(found, "Bo", "food")).to eq([:not_yet, 1/3r, 3])
    expect(state(found, "Ada", "weather")).to eq([:too_little, 1, 1])
    expect(state(found, "Cleo", "food")).to be_nil
    expect([found.having("food"), found.without("food").map(&:shown_name)]).to eq([1, ["Bo"]])
  end

  it "is by all sessions, and by the line that is asked for" do
    hold({ "Bo" => "11221" })
    hold({ "Bo" => "11111" })
    expect(state(overview, "Bo", "food")).to eq([:has, 5/6r, 6])
    expect(state(overview(line: 9/10r), "Bo", "food").first).to eq(:not_yet)
  end

  it "looks no further back than asked" do
    row = hold({ "Ada" => "11111" })
    database[:sessions].where(id: row.id).update(ended_at: Sequel.lit("ended_at - interval '40 days'"))
    expect(overview(period: "month").names).to eq([])
    expect(overview(period: "term").names).to eq(%w[food weather])
  end

  it "weighs each mark by the points of its question, with the interval of rules.md, and says how" do
    earned = ->(mark, weight) { Roost::Core::Analysis::Mastery::Earned.new(student_id: 1, mark: mark, weight: weight) }
    steps = []
    cell = Roost::Core::Analysis::Mastery.cell([earned.call(1r, 1), earned.call(1r, 1), earned.call(1r, 1), earned.call(0r, 1)],
                                               steps: steps)
    expect(cell.interval.map { |bound| bound.round(3) }).to eq([0.301, 0.954])
    expect([steps.last.value, steps[1].value]).to eq([cell.state, 3/4r])
    expect(Roost::Core::Analysis::Mastery.cell([earned.call(1r, 300), earned.call(0r, 100)]).share).to eq(3/4r)
  end

  it "follows a corrected key, and has nothing of another teacher's sessions" do
    row = hold({ "Ada" => "11211" })
    expect(state(overview, "Ada", "food")).to eq([:not_yet, 2/3r, 3])
    Roost::Operations::CorrectQuestion.new.call(account, row.id, "s2", { "keys" => %w[o2] }, in_lesson: false)
    expect(state(overview, "Ada", "food")).to eq([:has, 1, 3])
    other = teacher(email: "rook@heronsgate.example")
    expect(described_class.new.call(other, klass).names).to eq([])
  end

  it "counts what belongs to a standard for the one above it, however deep, and ends where a list goes round in a circle" do
    standards = %w[food marsh world].zip(%w[marsh world food]).map do |code, parent|
      { code: code, words: code, subject: "", level: "", parent: parent }
    end
    Roost::Store::Standards.new.keep(account, standards, for_all: false)
    hold({ "Ada" => "12211" })
    found = overview
    expect(found.names).to eq(%w[food marsh weather world])
    expect([state(found, "Ada", "marsh"), state(found, "Ada", "world")]).to eq([[:not_yet, 1/3r, 3]] * 2)
  end

  it "gives the questions again to exactly those who don't have it, the worst first, once" do
    hold({ "Ada" => "11111", "Bo" => "12211", "Cleo" => "12111" })
    Roost::Operations::StudentPasses.new.of_class(account, klass)
    practise = Roost::Operations::PractiseStandard.new
    once = SecureRandom.uuid
    given = Array.new(2) { practise.call(account, klass, "food", line: 4/5r, period: "all", once: once).value }
    expect(given.map(&:id).uniq.length).to eq(1)
    assignment = Roost::Store::Assignments.new.find(given.first.id)
    expect(assignment.pieces.keys.map(&:to_i)).to match_array(students.drop(1).map(&:id))
    lesson = Roost::Store::Sessions.new.lesson_of(given.first)
    expect(lesson.prompts.map { |each| each.prompt.origin }).to eq(%w[p1 p2 p0])
    expect(Roost::Operations::OwnTasks.new.call(students[1]).map { |task| task.row.title }).to eq(["Practise: food"])
    expect(Roost::Operations::OwnTasks.new.call(students[0])).to eq([])
    expect(practise.call(account, klass, "weather", line: 4/5r, period: "all").reason).to eq(Roost::Operations::PractiseStandard::NOBODY)
    expect(practise.call(teacher(email: "rook@heronsgate.example"), klass, "food", line: 4/5r, period: "all")).to be_nil
  end

  it "says how the class did on it session by session" do
    hold({ "Ada" => "11111", "Bo" => "22211" })
    hold({ "Ada" => "11111", "Bo" => "11111" })
    expect(described_class.new.over_sessions(overview, "food").map(&:last)).to eq([1/2r, 1])
  end

  it "names the questions behind it" do
    hold({ "Ada" => "12111" })
    found = overview
    cell = found.cell(found.students.first, "food")
    expect(described_class.new.questions(cell).map { |seen| [seen.slide.id, seen.earned.mark, seen.title] })
      .to match_array([["s0", 1, "Birds"], ["s1", 0, "Birds"], ["s2", 1, "Birds"]])
  end
end
