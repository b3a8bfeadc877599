# frozen_string_literal: true

# Goes through the program with the demo data, from state to state, and stops at each.
#
#     Tour.new(self).seat { |name, session| … }
module Tour
  DEMO = ["Birds on the move", "Voices of the marsh"].freeze

  def demo
    @demo ||= Roost::Setup::Demo.new.call(sessions: 1)
  end

  def falk = database[:accounts].where(email: demo[:email]).get(:id)

  def lesson_id(title)
    database[:lessons].where(account_id: falk).where(Sequel.lit("head->>'title' = ?", title)).get(:id)
  end

  # One lesson of a slide of each arrangement and each kind of question, in a game round where it can be.
  def everything
    slides = DEMO.flat_map { |title| Roost::Store::Lessons.new.find(falk, lesson_id(title)).lesson.slides }
    looks = ->(each) { [each.prompt&.kind, each.prompt&.label, each.layout, each.pictures.length > 1] }
    shown = slides.select(&:for_class).uniq(&looks)
    named = shown.each_with_index.map { |each, place| each.with(id: "t#{place}") }
    Roost::Core::Lesson.new(title: "Everything", slides: named, sections: [round(named)])
  end

  def round(slides)
    game = slides.select { |each| each.prompt&.keyed? }.first(3)
    first = slides.index(game.first)
    section("round", "game", slides[first, 3].map(&:id))
  end

  def teacher_pages(session)
    past = database[:sessions].where(account_id: falk).min(:id)
    seat = database[:seats].where(session_id: past).min(:id)
    asked = database[:answers].where(session_id: past).min(:slide_id)
    birds = lesson_id("Birds on the move")
    empty = Roost::Core::Lesson.new(title: "Nothing yet", slides: [slide("s1", heading: "")])
    bare = Roost::Store::Lessons.new.create(falk, empty)
    kestrel = Roost::Store::Classes.new.all(falk).first.id
    ada = Roost::Store::Students.new.of_class(kestrel).first.id
    code = Roost::Operations::ClassCode.new.call(falk, kestrel)
    pages = %W[/today /classes /classes/roster /class/#{code} /classes?shelf=archived /school /school/log
               /lessons/#{birds}/start?class_id=#{kestrel} /lessons /lessons?q=nothing+like+it /lessons/#{bare}
               /lessons/#{birds}/about /lessons/#{birds}/look /lessons/#{birds}/history /lessons/#{birds}/start
               /lessons/#{birds}/add /lessons/#{birds}/starters /lessons/#{birds}/bank /lessons/#{birds}/preview /bank /standards
               /results /account]
    [*pages, *class_pages(kestrel, ada), *result_pages(past, seat, asked)]
      .each do |path|
        session.visit path
        session.find("h1", match: :first, visible: :all)
        yield path, session
      end
  end

  def class_pages(id, student)
    %W[/classes/#{id} /classes/#{id}/add /classes/#{id}/students/#{student} /classes/#{id}/students/#{student}/delete
       /classes/#{id}/students/#{student}/record /classes/#{id}/grades /classes/#{id}/grades/rules /classes/#{id}/grades/changes
       /classes/#{id}/grades/columns/new /classes/#{id}/standards /classes/#{id}/over-time /classes/#{id}/groups]
  end

  def result_pages(id, seat, asked)
    %W[/results/#{id} /results/#{id}?as=answer&order=hardest&sort=share /results/#{id}/questions /results/#{id}/timeline
       /results/#{id}/files /results/#{id}/questions/#{asked}/marks /results/#{id}/students/#{seat}]
  end

  # A lesson from the lobby to its end, with twelve who have answered.
  # @yield [String, Capybara::Session] state and window
  def live(desk, screen, seat)
    session = Roost::Operations::StartSession.new.call(falk, Roost::Store::Lessons.new.create(falk, everything), OPTIONS).value
    windows = { desk: desk, screen: screen, seat: seat }
    at = ->(state, among = windows.keys) { windows.slice(*among).each { |who, window| yield "#{who}: #{state}", window } }
    desk.visit "/desk/#{session.id}"
    desk.find("h1", text: "Waiting for the class")
    at.call("nobody yet", [:desk])
    seats = come(session, windows)
    at.call("lobby")
    teach(session, seats, windows, at)
  end

  # @return [Hash] students to ids of their seats
  def come(session, windows)
    windows[:seat].visit "/seat/#{take_seat(session, "Ada").last}"
    windows[:screen].visit "/screen/#{session.screen_key}"
    Roost::Core::Practice::Roster.students(12, seed: 5).to_h do |student|
      [student, Roost::Store::Seats.new.create(session.id, student.name).first]
    end
  end

  def teach(session, seats, windows, at)
    command(session, "begin")
    Roost::Store::Sessions.new.lesson(session.id).class_slides.each { |slide| go_through(session, slide, seats, windows, at) }
    room(session, windows, at)
    command(session, "eyes_up")
    settled(windows) { |window| window.has_css?("h1, h3", text: "Eyes up") }
    at.call("eyes up")
    command(session, "end")
    settled(windows) { |window| window.has_css?("h1", text: /ended|finished|That was/) }
    at.call("ended")
  end

  # What a teacher does besides asking.
  def room(session, windows, at)
    command(session, "jump", slide: Roost::Store::Sessions.new.lesson(session.id).class_slides.first.id)
    seat = Roost::Store::Seats.new.of(session.id).map(&:id).first(2)
    Roost::Store::Seats.new.arrive(seat.last, "tour")
    command(session, "talk", what: "talk", seconds: "120")
    command(session, "pair", size: "2")
    settled(windows) { |window| window.has_css?(".talk-time") }
    at.call("talk time and pairs")
    command(session, "pen")
    settled(windows) { |window| window.has_css?("ink-sheet") }
    at.call("pen")
    command(session, "board", paper: "squared")
    settled(windows) { |window| window.has_css?(".paper") }
    at.call("blank page")
    command(session, "board_down")
    command(session, "pen_down")
  end

  OPTIONS = { "opens_itself" => "1", "may_change" => "1", "names_shown" => "1", "code_throughout" => "1",
              "speed_share" => "0.25" }.freeze

  def go_through(session, slide, seats, windows, at)
    command(session, "jump", slide: slide.id)
    settled(windows) { |window| window.has_css?("h1, h3", text: slide.heading.delete("*$"), visible: :all) }
    at.call("#{slide.id} #{slide.prompt&.kind}")
    return unless slide.prompt

    give(session, slide, seats)
    command(session, "curate", slide: slide.id, what: "approve", cards: waiting_cards(session, slide)) if slide.prompt.board?
    command(session, "close")
    command(session, "show", what: "results")
    command(session, "show", what: "key") if slide.prompt.keyed?
    settled(windows) { |window| window.has_text?(/closed|What the class answered|answered/i) }
    at.call("#{slide.id} #{slide.prompt.kind} told")
    tell_more(session, slide, seats, windows, at)
  end

  def tell_more(session, slide, seats, windows, at)
    if Roost::Store::Sessions.new.lesson(session.id).game?(slide.id)
      command(session, "show", what: "standings")
      settled(windows.slice(:desk, :screen)) { |window| window.has_css?("h1, h3", text: "Standings") }
      settled(windows.slice(:seat)) { |window| window.has_css?(".standing") }
      at.call("#{slide.id} standings")
    end
    command(session, "spotlight", seat: seats.values.first.to_s, named: "1")
    settled(windows.slice(:desk, :screen)) { |window| window.has_css?(".spotlight") }
    at.call("#{slide.id} spotlight", %i[desk screen])
  end

  def waiting_cards(session, slide) = moment(session).tally(slide.id).waiting.map(&:key).join("\n")

  def give(session, slide, seats)
    random = Random.new(4)
    seats.each do |student, seat_id|
      Roost::Store::Answers.new.save(session_id: session.id, seat_id: seat_id, slide_id: slide.id, final: true, save_no: 1,
                                     value: slide.prompt.simulate(student, random), keyed: slide.prompt.keyed?,
                                     save_id: SecureRandom.uuid)
    end
  end

  def settled(windows) = windows.each_value { |window| yield(window) || raise("not there: #{window.current_path}") }
end
