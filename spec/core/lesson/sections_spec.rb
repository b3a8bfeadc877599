# frozen_string_literal: true

RSpec.describe Roost::Core::Sections do
  # Slides with everything a slide can have, so that losing any of it shows.
  let(:lesson) do
    pictures = [Roost::Core::Picture.new(file: "#{"a" * 64}.png", width: 4, height: 3, alt: "A wing").freeze]
    slides = (1..7).map do |number|
      prompt = choice(id: "p#{number}", keys: ["o1"], points: number * 10, time_limit: 20, explanation: "Food") if number.odd?
      slide("s#{number}", heading: "Slide #{number}", prompt: prompt, pictures: pictures, notes: "n#{number}")
    end
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end

  # A script of changes as numbers, so that PropCheck can shrink it.
  def carry_out(lesson, steps)
    steps.each_with_index.reduce(lesson) do |now, ((what, which, to), turn)|
      ids = now.slides.map(&:id)
      chosen = [ids[which % ids.length]]
      way = Roost::Core::Section::WAYS.keys[to % 3]
      section = now.sections.to_a[which % [now.sections.count, 1].max]
      case what % 7
      when 0 then now.sectioned([chosen.first, ids[to % ids.length]], "x#{turn}", way)
      when 1..3 then section ? changed(now, section.id, what % 7, way, turn) : now
      when 4 then now.moving(chosen | [ids[to % ids.length]], to % 9)
      when 5 then now.stepping(chosen, 1)
      else now.stepping(chosen, -1)
      end
    end
  end

  def changed(lesson, section_id, what, way, turn)
    case what
    when 1 then lesson.section_changed(section_id, way: way)
    when 2 then lesson.without_section(section_id)
    else lesson.section_changed(section_id, title: "Title #{turn}")
    end
  end

  def steps
    number = PropCheck::Generators.choose(0..8)
    PropCheck::Generators.array(PropCheck::Generators.tuple(number, number, number), max: 14)
  end

  it "never loses or changes a slide, whatever is made of which run" do
    PropCheck.forall(steps) do |script|
      after = carry_out(lesson, script)
      expect(after.slides.sort_by(&:id)).to eq(lesson.slides)
    end
  end

  it "keeps every section one run of consecutive slides, and no slide in two" do
    PropCheck.forall(steps) do |script|
      after = carry_out(lesson, script)
      order = after.slides.map(&:id)
      after.sections.each do |section|
        places = section.slide_ids.map { |id| order.index(id) }
        expect(places).to eq((places.min..places.max).to_a)
      end
      owned = after.sections.flat_map(&:slide_ids)
      expect(owned).to eq(owned.uniq)
      expect(after.sections.map(&:id)).to eq(after.sections.map(&:id).uniq)
      expect(Roost::Core::Lesson.from_document(JSON.parse(JSON.generate(after.to_document)))).to eq(after)
    end
  end

  it "comes back to the same lesson when a run is made a quiz, a game round, and nothing again" do
    PropCheck.forall(PropCheck::Generators.choose(1..7), PropCheck::Generators.choose(1..7)) do |one, other|
      made = lesson.sectioned(["s#{one}", "s#{other}"], "new", "quiz")
      game = made.section_changed("new", way: "game")
      expect(game.game_slides.map(&:id)).to eq(game.sections.section("new").slide_ids.select { |id| lesson.slide(id).prompt })
      expect(game.section_changed("new", way: "quiz")).to eq(made)
      expect(game.without_section("new")).to eq(lesson)
    end
  end

  it "is the same as before when any part of it was made a quiz and back, whatever it was made of" do
    place = PropCheck::Generators.choose(0..6)
    PropCheck.forall(steps, place, place).with_config(n_runs: 300).check do |script, one, other|
      before = carry_out(lesson, script)
      ids = before.slides.map(&:id).values_at(*[one, other].minmax)
      quiz = before.sectioned(ids, "quiz", "quiz")
      expect(quiz.without_section("quiz")).to eq(before)
      expect(quiz.section_changed("quiz", title: "Of its own").without_section("quiz").sections.to_a).to eq(before.sections.to_a)
      around = quiz.sections.section("quiz").slide_ids.map { |id| before.section_of(id) }.uniq
      next unless around.one? && around.first && around.first.way != "quiz"

      expect(quiz.section_changed("quiz", way: around.first.way)).to eq(before)
    end
  end

  it "leaves one titled round where one slide of it was made a quiz and a round again" do
    round = lesson.sectioned(%w[s1 s5], "round", "game").section_changed("round", title: "Beaks")
    back = round.sectioned(%w[s3 s3], "quiz", "quiz").section_changed("quiz", way: "game")
    expect(back.sections.map { |section| [section.name, section.slide_ids] }).to eq([["Beaks", %w[s1 s2 s3 s4 s5]]])
  end

  it "reaches every place inside and outside a section by single steps" do
    quiz = lesson.sectioned(%w[s3 s4], "quiz", "quiz")
    seen = [quiz]
    6.times { seen << seen.last.stepping(["s1"], 1) }
    places = seen.map { |each| [each.place("s1"), each.section_of("s1")&.id] }
    expect(places).to eq([[0, nil], [1, nil], [1, "quiz"], [2, "quiz"], [3, "quiz"], [3, nil], [4, nil]])
    back = (0...6).reduce(seen.last) { |each, _| each.stepping(["s1"], -1) }
    expect(back).to eq(quiz)
  end

  it "splits a section in two where another is made of its midst" do
    torn = lesson.sectioned(%w[s1 s5], "round", "game").sectioned(%w[s3 s3], "quiz", "quiz")
    expect(torn.sections.map { |section| [section.way, section.slide_ids] })
      .to eq([["game", %w[s1 s2]], ["quiz", %w[s3]], ["game", %w[s4 s5]]])
  end

  it "takes a slide that is dragged between two of a section into it, and a new one after it" do
    quiz = lesson.sectioned(%w[s3 s4], "quiz", "quiz")
    expect(quiz.moving(["s7"], 3).section_of("s7").id).to eq("quiz")
    expect(quiz.moving(["s7"], 1).section_of("s7")).to be_nil
    expect(quiz.moving(["s3"], 6).section_of("s3")).to be_nil
    expect(quiz.with_slides_after("s4", [slide("new")]).section_of("new").id).to eq("quiz")
  end
end

RSpec.describe Roost::Core::LessonUpgrade do
  it "reads a lesson of the first schema: one picture, polls without a key, game questions as rounds" do
    game = { "id" => "p2", "kind" => "choice", "options" => [], "keys" => ["o1"], "time_limit" => 20, "points" => 50 }
    poll = { "id" => "p1", "kind" => "choice", "options" => [], "keys" => [] }
    picture = { "file" => "#{"b" * 64}.svg", "width" => 3, "height" => 2, "alt" => "" }
    slides = [{ "id" => "s1", "rev" => 4, "heading" => "Poll", "picture" => picture, "prompt" => poll },
              { "id" => "s2", "rev" => 1, "heading" => "Game", "picture" => nil, "prompt" => game }]
    lesson = Roost::Core::Lesson.from_document({ "schema" => 1, "title" => "Old", "slides" => slides })
    expect(lesson.slide("s1").picture.width).to eq(3)
    expect(lesson.slide("s1").problems).not_to include("no key yet")
    expect(lesson.game_slides.map(&:id)).to eq(["s2"])
    expect([lesson.slide("s1").rev, lesson.slide("s2").prompt.points]).to eq([4, 50])
  end
end
