# frozen_string_literal: true

# The same question in several sessions, by its origin.
RSpec.describe Roost::Operations::OverSessions do
  let(:account) { teacher }
  let(:colleague) { teacher(email: "rook@heronsgate.example") }
  let(:question) { choice(id: "p1", texts: %w[A B], keys: %w[o1]) }
  let(:lesson) { Roost::Core::Lesson.new(title: "Birds", slides: [slide("s1", prompt: question)]) }

  # @param right [Integer]; wrong [Integer] how many gave which
  # @param shares [Boolean] whether the class lets colleagues see
  def hold(right, wrong, by: account, shares: false, lesson: self.lesson)
    klass = Roost::Operations::KeepClass.new.create(by, { "name" => "8 Avocet" }).value
    Roost::Operations::KeepClass.new.change(by, klass, { "shares_figures" => "1" }) if shares
    row = Roost::Operations::StartSession.new.call(by, kept_lesson(by, lesson),
                                                   { "opens_itself" => "1", "class_id" => klass.to_s }).value
    command(row, "begin")
    [*(["o1"] * right), *(["o2"] * wrong)].each_with_index do |option, at|
      save(row, take_seat(row, "S #{at}").first, lesson.slides.last.id, picked(option))
    end
    command(row, "end")
    Roost::Operations::WriteEvidence.new.call([row.id])
    row
  end

  def over = described_class.new.call(account, ["p1"])["p1"]

  it "is all that were reached, with its interval, and the range of sessions" do
    hold(1, 3)
    hold(4, 2)
    found = over
    expect([found.students, found.facility, found.range, found.asked.map(&:share)]).to eq([10, 1/2r, [1/4r, 2/3r], [1/4r, 2/3r]])
    expect(found.interval.map { |bound| bound.round(3) }).to eq([0.237, 0.763]) # Wilson, 5 of 10
    expect(Roost::Web::Asked.in_words(found)).to eq("Asked 2 times, 25 to 67 % right")
  end

  it "knows the question in another lesson, and follows a corrected key" do
    row = hold(1, 3)
    copied = lesson.slides.first.copy("s9")
    expect(copied.prompt.origin).to eq("p1")
    hold(2, 0, lesson: Roost::Core::Lesson.new(title: "Other", slides: [copied]))
    expect(over.range).to eq([1/4r, 1])
    Roost::Operations::CorrectQuestion.new.call(account, row.id, "s1", { "keys" => %w[o2] }, in_lesson: false)
    expect(over.range).to eq([3/4r, 1])
  end

  it "has of colleagues only what they let be seen, not of a few students, and not whose it is" do
    hold(3, 1)
    hold(5, 0, by: colleague)
    expect(over.asked.length).to eq(1)
    hold(2, 2, by: colleague, shares: true)
    expect(over.asked.length).to eq(1)
    hold(3, 3, by: colleague, shares: true)
    found = over
    expect([found.students, found.facility]).to eq([10, 6/10r])
    expect(found.asked.reject(&:mine).map { |each| [each.title, each.class_name] }).to eq([[nil, nil]])
  end

  it "is the mean of what it told apart in each session, by students" do
    asked = Roost::Core::Analysis::OverSessions::Asked
    all = [[10, 0.5], [30, 0.1], [20, nil]].each_with_index.map do |(students, told), at|
      asked.new(session_id: at, slide_id: "s", students: students, earned: 1r, discrimination: told, mine: true, at: at.to_f)
    end
    steps = []
    expect(Roost::Core::Analysis::OverSessions.new(all).discrimination(steps: steps)).to be_within(1e-9).of(0.2)
    expect(Roost::Web::Why.sentences(steps)).to eq(["The mean of 2 sessions, each by how many of 40 students it had: 0.2."])
    expect(Roost::Core::Analysis::OverSessions.new(all.last(1)).discrimination).to be_nil
  end
end
