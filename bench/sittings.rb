# frozen_string_literal: true

require "rack"

module Bench
  # Students at their own speed: three hundred open an assignment within ten seconds; go through it, each a slide every ten
  # seconds, answering; and a class of thirty in a quiz of forty questions, from an answer to its cell at the Desk.
  class Sittings
    STUDENTS = 300
    SPREAD = 10.0 # seconds in which all open it, and in which each moves on once
    ROUNDS = 3
    AT_A_TIME = 24
    CLASS = 30
    QUESTIONS = 40
    CELLS = 60
    FEW = 10 # questions
    GOALS = { sitting_start_300_s: "at most 12", sitting_step_ms_p95: "at most 120", grid_ms_p95: "at most 300",
              grid_growth: "at most 2" }.freeze

    # @param account_id [Integer] of the teacher who is signed in
    # @param server [Server]
    def initialize(account_id, server)
      @account_id = account_id
      @server = server
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      tokens = seats(assignment, STUDENTS)
      { sitting_start_300_s: started(tokens), **steps(tokens), **grid, **growth }
    end

    private

    def lesson(sections = [], questions: QUESTIONS)
      slides = Array.new(questions) do |number|
        prompt = Roost::Core::Kinds.all.first.new(id: "p#{number}", settings: { "keys" => %w[o1] })
        Roost::Core::Slide.new(id: "s#{number}", heading: "Why do swallows leave the marsh before the first frost?",
                               text: "Think of what a swallow eats. " * 5, prompt: prompt)
      end
      lesson = Roost::Core::Lesson.new(title: "Bench", slides: slides, sections: sections)
      Roost::Store::Lessons.new.create(@account_id, lesson)
    end

    def assignment
      now = Time.now.utc
      times = { "opens_at" => now - 86_400, "closes_at" => now + 86_400 }
      form = times.transform_values { |time| time.strftime("%Y-%m-%dT%H:%M") }.merge("entry" => "free", "going_back" => "1")
      Roost::Operations::AssignLesson.new.call(@account_id, lesson, form).value
    end

    def seats(session, many) = Array.new(many) { |number| Roost::Store::Seats.new.create(session.id, "Student #{number}").last }

    # Does something for each at its time, and says how long after that each was done, in seconds: where all AT_A_TIME are
    # busy, whoever is due waits, as a student would.
    # @yieldparam http [Net::HTTP]
    # @return [Array<Float>]
    def offered(things, &block)
      began = Bench.clock
      waiting = Queue.new
      things.each_with_index { |thing, place| waiting << [thing, began + (place * SPREAD / things.length)] }
      took = Queue.new
      Array.new(AT_A_TIME) { Thread.new { take_turns(waiting, took, &block) } }.each(&:join)
      Array.new(took.length) { took.pop }
    end

    def take_turns(waiting, took)
      Net::HTTP.start(Server::HOST, @server.port) do |http|
        loop do
          thing, due = waiting.pop(true)
          sleep([due - Bench.clock, 0].max)
          yield(http, thing)
          took << (Bench.clock - due)
        end
      end
    rescue ThreadError
      nil
    end

    # @return [Float] seconds until the last has its first slide
    def started(tokens)
      began = Bench.clock
      offered(tokens) do |http, token|
        http.get("/seat/#{token}")
        page = http.post("/sitting/#{token}/begin", "").body
        raise "no first slide: #{page[0, 200]}" unless page.include?("slide-s0")
      end
      (Bench.clock - began).round(1)
    end

    def steps(tokens)
      times = (1..ROUNDS).flat_map do |round|
        offered(tokens) do |http, token|
          answer(http, token, "s#{round - 1}", 1)
          page = http.post("/sitting/#{token}/place?to=#{round + 1}", "").body
          raise "not moved on: #{page[0, 200]}" unless page.include?("slide-s#{round}")
        end
      end.sort
      p95, median = [times[(times.length * 0.95).ceil - 1], Bench.median(times)].map { |seconds| (seconds * 1000).round(1) }
      { sitting_step_ms_p95: p95, sitting_step_ms_median: median }
    end

    def answer(http, token, slide, save_no)
      save = { slide: slide, fields: { options: ["o1"] }, final: false, save_no: save_no, save_id: SecureRandom.uuid }
      http.post("/answers/#{token}", JSON.generate(save), { "content-type" => "application/json" })
    end

    # Half of the cells are full, and then one after the other comes.
    def grid
      session, tokens = quiz(QUESTIONS, QUESTIONS / 2)
      times = Net::HTTP.start(Server::HOST, @server.port) { |http| cells(session, http, tokens) }
      { grid_ms_p95: times[(times.length * 0.95).ceil - 1].round, grid_ms_median: Bench.median(times).round }
    end

    # A class at work in a quiz, with the first of its questions answered by all.
    # @return [Array] the session and the tokens of its seats
    def quiz(questions, answered)
      slides = Array.new(questions) { |at| "s#{at}" }
      section = Roost::Core::Section.from_document("id" => "quiz", "way" => "quiz", "slide_ids" => slides)
      id = lesson([section], questions: questions)
      session = Roost::Operations::StartSession.new.call(@account_id, id, { "opens_itself" => "1" }).value
      tokens = seats(session, CLASS)
      Roost::Operations::CommandSession.new.call(@account_id, session.id, "begin")
      tokens.each { |token| fill(session, Roost::Store::Seats.new.by_token(token), answered) }
      [session, tokens]
    end

    # What one answer more costs: reading it, the Desk's view, its page; among forty questions that are answered, and among
    # ten.
    def growth
      few, many = [FEW, QUESTIONS].map { |questions| work(questions) }
      { grid_work_ms: many.round(1), grid_growth: (many / few).round(2) }
    end

    # @return [Float] milliseconds, the median
    def work(questions)
      session, tokens = quiz(questions, questions - 1)
      mirror = Roost::Live::SessionCache.new(session.id)
      page = Roost::Web::Fragments.new
      2.times { mirror.moment.tap { sleep Roost::Live::SessionCache::OVERLAP + 0.1 } }
      times = tokens.map do |token|
        give(session, Roost::Store::Seats.new.by_token(token), questions - 1)
        began = Bench.clock
        moment = mirror.moment(Set[:answers])
        page.desk(Roost::Core::Session::Views.desk(moment), moment.now)
        (Bench.clock - began) * 1000
      end
      Bench.median(times)
    end

    def fill(session, seat, answered)
      Roost::Operations::TakeSitting.new.call(seat, Roost::Store::Sessions.new.find(session.id))
      answered.times { |at| give(session, seat, at) }
    end

    def give(session, seat, at)
      Roost::Store::Answers.new.save(session_id: session.id, seat_id: seat[:id], slide_id: "s#{at}", final: false, keyed: true,
                                     save_no: 1, save_id: SecureRandom.uuid, value: { "options" => ["o1"] })
    end

    # @return [Array<Float>] milliseconds, rising
    def cells(session, http, tokens)
      cookie = @server.teacher.last["cookie"]
      desk = Streams.new(Server::HOST, @server.port, ["/stream/desk/#{session.id}"]) { "Cookie: #{cookie}\r\n" }
      full = CLASS * QUESTIONS / 2
      until_full(desk, full)
      Array.new(CELLS) do |turn|
        sleep 0.15
        began = Bench.clock
        sender = Thread.new { answer(http, tokens[turn % CLASS], "s#{(QUESTIONS / 2) + (turn / CLASS)}", 1) }
        (until_full(desk, full + turn + 1) - began).tap { sender.join } * 1000
      end.sort
    ensure
      desk&.close
    end

    # @return [Float] when the Desk had so many cells that are right
    def until_full(desk, many)
      desk.wait_until do |text|
        grid = text.end_with?("\n\n") && text.split("\n\n").reverse.find { |event| event.include?("quiz-grid") }
        grid && grid.scan('class="is-right').length >= many
      end
    end
  end
end
