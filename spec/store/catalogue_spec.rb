# frozen_string_literal: true

RSpec.describe Roost::Store::Catalogue do
  let(:account) { teacher }
  let(:colleague) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }
  let(:catalogue) { described_class.new }
  let(:sharing) { Roost::Store::Sharing.new }

  def keep(title, by: account, slides: [], **details)
    about = Roost::Core::Details.new(**Roost::Core::Details.blank.to_h, **details).freeze
    kept_lesson(by, Roost::Core::Lesson.new(title: title, slides: slides, details: about))
  end

  def titles(by: account, **opts) = catalogue.find(by, **opts).map(&:title)

  it "finds words in titles, details, slides, options and tags, as beginnings, all of them somewhere" do
    keep("Birds on the move", subject: "Science", vocabulary: ["migration"],
                              slides: [slide("s1", heading: "Swallows"), slide("s2", prompt: choice(subtopics: ["insects"]))])
    keep("Bridges", slides: [slide("s1", heading: "Arches and beams")])
    expect(titles(query: "migrat swallow")).to eq(["Birds on the move"])
    expect(titles(query: "heron insect birds")).to eq(["Birds on the move"])
    expect(titles(query: "swallow arch")).to be_empty
    expect(titles(query: "the arches")).to eq(["Bridges"])
    expect(titles(query: "'; DROP TABLE lessons; --")).to be_empty
    expect(titles(query: "  ").length).to eq(2)
  end

  it "keeps what it searches up to date with every save, and forgets what is gone" do
    id = keep("Birds", slides: [slide("s1", heading: "Swallows"), slide("s2", heading: "Herons")])
    Roost::Operations::EditSlide.new.call(account, id, "s1", rev: 1) { |each| each.edited({ "heading" => "Cuckoos" }) }
    Roost::Operations::ChangeLesson.new.call(account, id) { |lesson| Roost::Core::Reading.ok(lesson.without_slides(["s2"])) }
    expect([titles(query: "cuckoo"), titles(query: "swallow"), titles(query: "heron")]).to eq([["Birds"], [], []])
  end

  it "shows a teacher her own lessons, those shared with her, and those open to all, each on its shelf" do
    mine = keep("Mine")
    shared = keep("Shared", by: colleague)
    open = keep("Open", by: colleague)
    keep("Hidden", by: colleague)
    sharing.share(shared, account, may_edit: true)
    sharing.open_to_all(open, true)
    sharing.star(account, open, true)
    sharing.archive(keep("Old"), true)
    expect(titles.sort).to eq(%w[Mine Shared])
    expect(%w[shared open starred archived].map { |shelf| titles(filters: { "shelf" => shelf }) })
      .to eq([["Shared"], ["Open"], ["Open"], ["Old"]])
    expect(catalogue.find(account).to_h { |entry| [entry.title, entry.role] }).to eq("Mine" => :owner, "Shared" => :edit)
    expect(catalogue.entry(account, open).role).to eq(:view)
    expect(Roost::Store::Lessons.new.find(account, open)).to be_nil
    expect(catalogue.entry(colleague, mine)).to be_nil
  end

  it "filters by subject and level, counts, and finds what is not finished" do
    keep("Birds", subject: "Science", level: "Year 7", slides: [slide("s1", prompt: choice), slide("s2")])
    keep("Tides", subject: "Geography", level: "Year 7")
    expect(titles(filters: { "subject" => "Science", "level" => "Year 7" })).to eq(["Birds"])
    expect(titles(filters: { "shelf" => "drafts" })).to eq(["Birds"])
    expect(catalogue.values(account, "subject")).to eq(%w[Geography Science])
    expect(catalogue.find(account, query: "birds").first.to_h).to include(slides: 2, questions: 1, unfinished: 1)
  end

  it "gives a page at a time and says when there is more" do
    42.times { |number| keep("Lesson #{number}") }
    expect([titles.length, titles(page: 2).length]).to eq([41, 2])
  end
end

RSpec.describe Roost::Store::Revisions do
  let(:account) { teacher }
  let(:colleague) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }
  let(:id) { kept_lesson(account).tap { |id| Roost::Store::Sharing.new.share(id, colleague, may_edit: true) } }
  let(:lessons) { Roost::Store::Lessons.new }

  def edit(slide_id, heading, by: account)
    rev = lessons.slide(id, slide_id).rev
    Roost::Operations::EditSlide.new.call(by, id, slide_id, rev: rev) { |slide| Roost::Core::Reading.ok(slide.with(heading: heading)) }
  end

  def lesson = lessons.find(account, id).lesson

  def undo(by: account) = Roost::Operations::UndoLesson.new.call(by, id)

  it "keeps of each save only what it changed, and puts any earlier lesson together again" do
    first = lesson
    edit("s1", "One")
    Roost::Operations::ChangeLesson.new.call(account, id) { |now| Roost::Core::Reading.ok(now.without_slides(["s2"]).moving(["s5"], 0)) }
    second = lesson
    edit("s3", "Two")
    expect(described_class.new.of(id).map { |revision| revision.slides.keys }).to eq([["s3"], [], ["s1"], %w[s1 s2 s3 s4 s5]])
    expect([1, 3].map { |number| described_class.new.lesson(id, number) }).to eq([first, second])
  end

  it "brings an earlier lesson back as a save that can itself be undone" do
    first = lesson
    edit("s1", "One")
    edit("s2", "Two")
    restored = Roost::Operations::RestoreLesson.new.call(account, id, 1).value.lesson
    expect(restored.slides.map(&:heading)).to eq(first.slides.map(&:heading))
    expect(undo.value.lesson.slides.map(&:heading).first(2)).to eq(%w[One Two])
    expect(Roost::Operations::RestoreLesson.new.call(account, id, 99)).not_to be_ok
  end

  it "undoes one's own change and leaves what a colleague did meanwhile" do
    edit("s1", "Mine")
    edit("s2", "Hers", by: colleague)
    expect(undo.value.lesson.slides.map(&:heading).first(2)).to eq(["Dusk over the marsh", "Hers"])
    expect(undo.reason).to eq("There is nothing more to undo.")
  end

  it "undoes nothing that a colleague has worked on since, and says who" do
    edit("s1", "Mine")
    edit("s1", "Hers", by: colleague)
    expect(undo.reason).to start_with("Mr Rowe has changed this since.")
    expect(lesson.slide("s1").heading).to eq("Hers")
  end

  it "names the colleague who saved the same slide first" do
    edit("s1", "Hers", by: colleague)
    late = Roost::Operations::EditSlide.new.call(account, id, "s1", rev: 1) { |slide| Roost::Core::Reading.ok(slide.with(heading: "x")) }
    expect(late.reason).to start_with("Mr Rowe changed the same meanwhile.")
  end

  it "knows who is at work on which slide, until they have gone" do
    sharing = Roost::Store::Sharing.new
    sharing.at_work(id, colleague, "s3")
    expect(sharing.editors(id, but: account).map { |editor| [editor.name, editor.slide_id] }).to eq([["Mr Rowe", "s3"]])
    database[:lesson_editors].update(seen_at: Sequel.lit("now() - interval '16 seconds'"))
    expect(sharing.editors(id, but: account)).to be_empty
  end
end

RSpec.describe Roost::Operations::MoveSlides do
  let(:account) { teacher }

  it "moves slides to another lesson, and gives them other ids where theirs are taken" do
    from = kept_lesson(account)
    to = kept_lesson(account, Roost::Core::Lesson.new(title: "Nests", slides: [slide("s1", heading: "Nest")]))
    moved = described_class.new.call(account, from, to, %w[s1 s4]).value
    lessons = Roost::Store::Lessons.new
    expect(lessons.find(account, from).lesson.slides.map(&:id)).to eq(%w[s2 s3 s5])
    expect(lessons.find(account,
                        to).lesson.slides.map(&:heading)).to eq(["Nest", "Dusk over the marsh", "How do they know the way?"])
    expect(moved.last).to eq("s4")
    expect(moved.first).not_to eq("s1")
  end

  it "leaves both as they are when the other is full or gone" do
    from = kept_lesson(account)
    full = Roost::Core::Lesson.new(title: "Full", slides: Array.new(600) { |number| slide("x#{number}") })
    expect(described_class.new.call(account, from, kept_lesson(account, full), %w[s1])).not_to be_ok
    expect(described_class.new.call(account, from, 999_999, %w[s1])).not_to be_ok
    expect(described_class.new.call(account, from, from, %w[s1])).not_to be_ok
    expect(Roost::Store::Lessons.new.find(account, from).lesson.slides.length).to eq(5)
  end
end
