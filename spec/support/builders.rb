# frozen_string_literal: true

# Values of the core for specs, each with sensible parts.
module Builders
  def choice(id: "p1", texts: ["Grey heron", "Swallow", "Reed bunting", "Cuckoo"], **settings)
    options = texts.each_with_index.map { |text, place| { "id" => "o#{place + 1}", "text" => text } }
    Roost::Core::Kinds::Choice::Prompt.new(id: id, settings: { "options" => options }.merge(settings.transform_keys(&:to_s)))
  end

  def writing(id: "p2", **settings)
    Roost::Core::Kinds::Writing::Prompt.new(id: id, settings: settings.transform_keys(&:to_s))
  end

  def sketch(id: "p3", **settings)
    Roost::Core::Kinds::Sketch::Prompt.new(id: id, settings: settings.transform_keys(&:to_s))
  end

  # A question played for points: 24 words in all, so reading is free for 10 s of 20.
  def game_choice(id: "g1", **settings)
    choice(id: id, keys: ["o1"], time_limit: 20, points: 100, **settings)
  end

  # A question as it stands in a sheet of questions.
  def sheet_row(prompt) = Roost::Exchange::Kinds.sheet_row(prompt.kind).new(prompt)

  # What a question comes to that went into a sheet and back.
  def through_sheet(prompt, common = {})
    row = sheet_row(prompt)
    row.class.read("p1", prompt.class, options: row.options + ([""] * (13 - row.options.length)), right: row.right,
                                       rules: Roost::Exchange::RowRules.new(row.rules), common: common)
  end

  def slide(id = "s1", prompt: nil, heading: "Birds of the marsh", **parts)
    Roost::Core::Slide.new(id: id, heading: heading, prompt: prompt, **parts)
  end

  def section(id, way, slide_ids, title: "", **rules)
    Roost::Core::Section.new(id: id, way: way, title: title, slide_ids: slide_ids,
                             rules: rules.transform_keys(&:to_s).freeze).freeze
  end

  # A slide to look at, a poll, a game question, a written question and a sketch.
  def marsh_lesson
    Roost::Core::Lesson.new(title: "Birds on the move", slides: [
                              slide("s1", heading: "Dusk over the marsh", text: "Look **closely**."),
                              slide("s2", heading: "Have you seen one?", prompt: choice(id: "p2", texts: %w[Yes No], poll: true)),
                              slide("s3", heading: "Why do swallows leave?", prompt: game_choice(id: "p3")),
                              slide("s4", heading: "How do they know the way?", prompt: writing(id: "p4", size: "line")),
                              slide("s5", heading: "Sketch a wing", prompt: sketch(id: "p5"))
                            ], sections: [section("round", "game", %w[s3])])
  end

  # A session at one moment, of its first attempt at everything.
  # @param answers [Hash] slide id to seat id to Answer; shown likewise to epoch seconds
  def moment_of(state:, answers:, shown:, code: "CDFGHJ", version: 1, seed: "", **parts)
    first = ->(by_slide) { by_slide.transform_keys { |slide_id| [slide_id, 1] } }
    record = record_of(**parts, live: true, facts: state.facts, answers: first.call(answers), shown: first.call(shown))
    Roost::Core::Session::Moment.new(record: record, state: state, code: code, version: version, seed: seed)
  end

  # What happened in a session.
  # @param parts [Hash] of a record's About, People and Given
  def record_of(facts: Roost::Core::Session::Facts::NONE, memory: Roost::Core::Session::Memory.new, **parts)
    record = Roost::Core::Session::Record
    parts = { id: 1, title: "Birds", options: room_options, seats: [], roll: [], teams: [], answers: {}, shown: {}, sat: {},
              commands: [], hand: {}, live: false, teams_at: {}, **parts }
    about, people, given = [record::About, record::People, record::Given].map { |each| each.new(**parts.slice(*each.members)) }
    record.new(about: about, people: people, given: given, facts: facts, memory: memory)
  end

  def room_options(**changed)
    Roost::Core::Session::Options.new(**Roost::Core::Session::Options::DEFAULTS, **changed).freeze
  end

  def answer(seat_id, slide_id, value, final: true, late: false, at: 0.0, attempt: 1)
    Roost::Core::Session::Answer.new(seat_id: seat_id, slide_id: slide_id, value: value, final: final, late: late,
                                     received_at: at, arrival: seat_id,
                                     attempt: attempt).freeze
  end

  def picked(*ids) = { "options" => ids }
end
