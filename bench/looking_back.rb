# frozen_string_literal: true

require "cgi"

module Bench
  # What looking back costs, and what it costs a lesson that is on meanwhile: the results of 500 seats by 40 questions as a page
  # and as CSV; what a class should meet again, and a student's own page, after a year of sessions; and another class's next slide
  # while two of each are asked for.
  class LookingBack
    SEATS = 500
    QUESTIONS = 40
    SESSIONS = 120 # in a year
    # What is asked, filled in by a kind: its :name, :settings, and as SQL the :value that a seat (id) gives to a question (q).
    KIND = {} # rubocop:disable Style/MutableConstant
    CLASS = 30
    TURNS = 15
    TOPICS = 60 # of which each session asks one
    OTHERS = 2_000 # sessions of the same teacher, without a class
    WITH_EVIDENCE = 400 # of them, in which CLASS students were marked on 42 questions each: half a million rows
    GOALS = { results_500_ms: "at most 300", results_500_csv_ms: "at most 500", bring_back_ms: "at most 60",
              own_results_ms: "at most 60", gradebook_ms: "at most 200", standards_year_ms: "at most 200",
              grid_100x60_ms: "at most 200", class_page_ms: "at most 200", sessions_2000_ms: "at most 150",
              results_500_xlsx_s: "at most 3", evidence_rewrite_s: "at most 1",
              lookback_ratio: "at most 1.5", lookback_rss_mb: "at most 250" }.freeze

    # @param account [Integer]
    # @param server [Server]
    # @yieldreturn [Array(Store::Sessions::Row, Array<String>)] a session of thirty and its tokens
    def initialize(account, server, &session)
      @account = account
      @server = server
      @session = session
    end

    # @return [Hash{Symbol=>Numeric}] medians in milliseconds
    def call
      klass = Roost::Operations::KeepClass.new.create(@account, { "name" => "Bench #{SecureRandom.hex(3)}" }).value
      large = ended(SEATS, nil)
      pass = year(klass)
      paths = ["/results/#{large}", "/results/#{large}/results.csv", "/classes/#{klass}/bring-back"]
      others = %W[/pass/#{pass} /classes/#{klass}/grades /classes/#{klass}/standards]
      page, sheet, back, own, grades, standards = [*paths, *others].map { |path| median(path) }
      { results_500_ms: page, results_500_csv_ms: sheet, bring_back_ms: back, own_results_ms: own, gradebook_ms: grades,
        standards_year_ms: standards, **made(large), **among_many(klass, large), **beside(paths) }
    end

    private

    # What is done in the background.
    # @return [Hash{Symbol=>Float}] seconds
    def made(large)
      row = Roost::Store::Sessions.new.find(large)
      workbook = Roost::Operations::SessionWorkbook.new
      evidence = Roost::Operations::WriteEvidence.new
      evidence.call([large])
      Roost::Store::Evidence.new.changed(large)
      { results_500_xlsx_s: seconds { workbook.file(row) }, evidence_rewrite_s: seconds { evidence.call([large]) } }
    end

    def seconds
      began = Bench.clock
      yield
      (Bench.clock - began).round(2)
    end

    # A grid of 100 by 60, a class's page, and the list of sessions, where there are many others.
    def among_many(klass, large)
      grid = ended(100, nil, questions: 60)
      others(large)
      grid, page, list = ["/results/#{grid}?as=percent", "/classes/#{klass}/over-time", "/results"].map { |path| median(path) }
      { grid_100x60_ms: grid, class_page_ms: page, sessions_2000_ms: list }
    end

    def others(like)
      database = Roost::Store::Database.connection
      columns = (database[:sessions].columns - %i[id screen_key once]).join(", ")
      database[<<~SQL, { like: like, many: OTHERS }].all
        INSERT INTO sessions (screen_key, #{columns})
        SELECT md5(random()::text || n), #{columns} FROM sessions, generate_series(1, :many) n WHERE id = :like RETURNING id
      SQL
      ids = database[:sessions].reverse(:id).limit(WITH_EVIDENCE).select_map(:id)
      database[<<~SQL, { ids: ids, many: CLASS }].all
        INSERT INTO seats (session_id, name, token_digest)
        SELECT id, 'Student ' || n, decode(md5(id || 'a' || n) || md5(id || 'b' || n), 'hex')
        FROM sessions, generate_series(1, :many) n WHERE id IN :ids RETURNING id
      SQL
      database[<<~SQL, { ids: ids }].all
        INSERT INTO evidence (session_id, seat_id, slide_id, attempt, origin, mark_num, mark_den, weight, counts, tags)
        SELECT session_id, id, 's' || q, 1, 'o' || q, q % 2, 1, 1, true, '{}' FROM seats, generate_series(1, 42) q
        WHERE session_id IN :ids RETURNING attempt
      SQL
      database.run("ANALYZE evidence, seats, sessions")
    end

    # The sessions of a class in a year, in all of which all took part.
    # @return [String] one student's pass
    def year(klass)
      roll = Roost::Core::ClassList.read(Array.new(CLASS) { |at| [at + 1, { name: "Student #{at} Lindqvist" }] }).value
      Roost::Operations::FillClass.new.fill(@account, klass, roll)
      passes = Roost::Operations::StudentPasses.new.of_class(@account, klass)
      sessions = Array.new(SESSIONS) { |number| ended(CLASS, klass, topic: "topic #{number % TOPICS}") }
      sessions.each { |id| seat(id, passes.map { |student, _| student.id }) }
      # As the background does when a session ends.
      Roost::Operations::WriteEvidence.new.call(sessions)
      passes.first.last
    end

    # Each seat of a session is a student's.
    def seat(session_id, student_ids)
      Roost::Store::Database.connection[<<~SQL, { ids: Sequel.pg_array(student_ids), session_id: session_id }].update
        UPDATE seats SET student_id = given.student_id
        FROM (SELECT id, (:ids::bigint[])[row_number() OVER (ORDER BY id)] AS student_id FROM seats WHERE session_id = :session_id)
          AS given WHERE seats.id = given.id
      SQL
    end

    def median(path)
      http, headers = @server.teacher
      times = Array.new(7) do
        began = Bench.clock
        raise "not there: #{path}" unless http.get(path, headers).code == "200"

        (Bench.clock - began) * 1000
      end
      Bench.median(times.drop(2)).round(1)
    end

    # Another class's next slide, from the press to the reply, alone and while two of each are asked for all the time.
    def beside(paths)
      session, = @session.call
      press = -> { turn(session) }
      3.times { press.call }
      alone = Array.new(TURNS) { press.call }
      asking = true
      readers = (paths * 2).map do |path|
        Thread.new do
          http, headers = @server.teacher
          http.get(path, headers) while asking
        end
      end
      sleep 2
      loaded = Array.new(TURNS) { press.call }
      asking = false
      readers.each(&:join)
      { lookback_ratio: (Bench.median(loaded) / Bench.median(alone)).round(2), lookback_rss_mb: @server.memory }
    end

    def turn(session)
      @http, @headers = @server.teacher unless @http
      began = Bench.clock
      command = (@back = !@back) ? "next" : "back"
      reply = @http.post("/desk/#{session.id}/commands", "command=#{command}", @headers.merge("hx-request" => "true"))
      raise "refused: #{reply.code}" unless reply.code == "204"

      (Bench.clock - began) * 1000
    end

    # A session that has ended, in which everybody answered every question.
    # @param topic [String, nil] of its first question
    # @return [Integer] id
    def ended(seats, class_id, topic: nil, questions: QUESTIONS)
      lesson = Roost::Store::Lessons.new.create(@account,
                                                Roost::Core::Lesson.new(title: "Bench", slides: slides(topic, questions)))
      form = { "opens_itself" => "1", "class_id" => class_id.to_s }
      row = Roost::Operations::StartSession.new.call(@account, lesson, form).value
      fill(row, seats, questions)
      %w[begin end].each { |command| Roost::Operations::CommandSession.new.call(@account, row.id, command) }
      row.id
    end

    def slides(topic, questions)
      Array.new(questions) do |number|
        about = number.zero? ? { "subtopics" => [topic].compact } : {}
        prompt = Roost::Core::Kinds.named(KIND[:name]).new(id: "b#{number}", settings: KIND[:settings].merge(about))
        Roost::Core::Slide.new(id: "s#{number}", heading: "Question #{number}", prompt: prompt)
      end
    end

    def fill(row, seats, questions)
      database = Roost::Store::Database.connection
      names = Array.new(seats) do |number|
        { session_id: row.id, name: "Student #{number}", token_digest: Sequel.blob(SecureRandom.bytes(32)) }
      end
      database[:seats].multi_insert(names)
      given = { session_id: row.id, questions: questions }
      database[<<~SQL, given].all
        INSERT INTO openings (session_id, slide_id, attempt, opened_at, closed_at)
        SELECT :session_id, 's' || q, 1, now() - interval '10 minutes', now() - interval '9 minutes'
        FROM generate_series(0, :questions - 1) q RETURNING slide_id
      SQL
      database[<<~SQL, given].all
        INSERT INTO deliveries (session_id, seat_id, slide_id, sent_at)
        SELECT session_id, id, 's' || q, now() - interval '10 minutes' FROM seats, generate_series(0, :questions - 1) q
        WHERE session_id = :session_id RETURNING seat_id
      SQL
      database[<<~SQL, given].all
        INSERT INTO answers (session_id, seat_id, slide_id, value, final, late, keyed, save_no, save_id, received_at)
        SELECT session_id, id, 's' || q, #{KIND[:value]}, true, false, true, 1,
               gen_random_uuid(), now() - interval '9 minutes' - make_interval(secs => (id % 50))
        FROM seats, generate_series(0, :questions - 1) q WHERE session_id = :session_id RETURNING id
      SQL
    end
  end
end

Dir[File.join(__dir__, "kinds/*/looking_back.rb")].each { |file| require file }
