# frozen_string_literal: true

module Bench
  # A game round of the largest session there may be: working out the standings; standings on every device, where each has a rank
  # of its own, against bare writes of as many bytes; and what a team sets on one device until the others have it.
  class Rounds
    SEATS = 1500
    TEAMS = 60
    QUESTIONS = 40
    TURNS = 5
    SETS = 60
    GOALS = { standings_cpu_ms: "at most 30", standings_ratio: "at most 3", team_answer_ms_p95: "at most 250" }.freeze

    def initialize(account, server)
      @account = account
      @server = server
      @http, @headers = server.teacher
    end

    # @return [Hash{Symbol=>Numeric}]
    def call = { **told, **set_by_teams, **worked_out }

    private

    def prompt(id)
      options = %w[o1 o2 o3 o4].map { |option| { "id" => option, "text" => "A bird called #{option}" } }
      Roost::Core::Kinds.all.first.new(id: "p#{id}", settings: { "options" => options, "keys" => ["o1"], "time_limit" => 30 })
    end

    def lesson(many)
      slides = Array.new(many) { |at| Roost::Core::Slide.new(id: "q#{at}", heading: "Who leaves the marsh?", prompt: prompt(at)) }
      section = Roost::Core::Section.new(id: "r", way: "game", title: "", slide_ids: slides.map(&:id), rules: {}.freeze).freeze
      Roost::Core::Lesson.new(title: "Bench", slides: slides, sections: [section])
    end

    # @return [Array(Store::Sessions::Row, Array<Array(Integer, String)>)] and ids and tokens of its seats
    def begun(seats, questions: 1, teams: 0, **how)
      lesson_id = Roost::Store::Lessons.new.create(@account, lesson(questions))
      form = { "opens_itself" => "1", "may_change" => "1", "names_shown" => "1", "teams" => ("dealt" if teams.positive?) }.compact
      row = Roost::Operations::StartSession.new.call(@account, lesson_id, form).value
      more = teams - 4 # those that the form made
      Roost::Store::Teams.new.create(row.id, Array.new([more, 0].max) { |at| ["Team #{at + 5}", at % 8] })
      people = Array.new(seats) { |number| Roost::Store::Seats.new.create(row.id, "Student #{number}") }
      command(row, "begin")
      command(row, "play", section: "r", **how)
      [row, people]
    end

    def command(row, name, **arguments)
      Roost::Operations::CommandSession.new.call(@account, row.id, name, arguments.transform_keys(&:to_s))
    end

    # Half have each question right, each after a time of their own.
    def answer_all(row, people, slide_id)
      ids = people.map(&:first)
      Roost::Store::Deliveries.new.note(row.id, slide_id, ids)
      saves = ids.each_with_index.map do |id, at|
        { session_id: row.id, seat_id: id, slide_id: slide_id, value: { "options" => [at.even? ? "o1" : "o2"] }, final: true,
          keyed: true, save_no: 1, save_id: SecureRandom.uuid }
      end
      Roost::Store::Answers.new.save_all(saves)
    end

    # CPU time of what the last question costs, where those before it have been worked out: so it is in a round.
    def worked_out
      row, people = begun(SEATS, questions: QUESTIONS, teams: TEAMS)
      cache = Roost::Live::SessionCache.new(row.id)
      QUESTIONS.times do |at|
        answer_all(row, people, "q#{at}")
        command(row, "close")
        break if at == QUESTIONS - 1

        cache.moment.standings
        command(row, "next")
      end
      moment = cache.moment
      moment.record.teams_at("q0")
      { standings_cpu_ms: (cpu { [moment.standings, moment.standings_by_seat] } * 1000).round(1) }
    end

    def cpu
      before = Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID)
      yield
      Process.clock_gettime(Process::CLOCK_THREAD_CPUTIME_ID) - before
    end

    def told
      row, people = begun(SEATS)
      answer_all(row, people, "q0")
      command(row, "close")
      sleep 1.2 # the grace after answering
      streams = Native::Streams.new(@server.port, people.map { |_, token| "/stream/seat/#{token}" })
      streams.wait_for("data: <")
      press("show", row)
      ours, native, ruby = FanOut.in_turns(SEATS, TURNS) { show_standings(row, streams) }
      { standings_ratio: (ours / native).round(2), standings_ms: ours.round(1), standings_bare_ms: native.round(1),
        standings_ratio_ruby: (ours / ruby).round(2) }
    ensure
      streams&.close
    end

    def show_standings(row, streams)
      press("hide", row)
      version = Roost::Store::Sessions.new.find(row.id).version
      streams.wait_for("id: #{version}")
      FanOut.timed(streams, "id: #{version + 1}", -> { press("show", row) })
    end

    def press(name, row) = @http.post("/desk/#{row.id}/commands", "command=#{name}&what=standings", @headers)

    # Sixty teams of five: one device of each sets an answer, and another of the same team has it.
    def set_by_teams
      row, people = begun(TEAMS * 5, teams: TEAMS, style: "steady", answering: "one")
      by_team = Roost::Store::Seats.new.of(row.id).group_by(&:team_id).values.map { |seats| seats.map(&:id) }
      tokens = people.to_h
      waits = by_team.first(SETS).map { |seats| until_told(tokens.values_at(*seats.first(2))) }
      { team_answer_ms_p95: (waits.sort[(waits.length * 0.95).ceil - 1] * 1000).round }
    end

    def until_told((one, other))
      stream = Native::Streams.new(@server.port, ["/stream/seat/#{other}"])
      stream.wait_for("Nobody has set one yet")
      body = JSON.generate("slide" => "q0", "fields" => { "options" => ["o1"] }, "final" => true, "save_no" => 1,
                           "save_id" => SecureRandom.uuid)
      began = Bench.clock
      Net::HTTP.start(Server::HOST, @server.port) do |http|
        http.post("/answers/#{one}", body, { "content-type" => "application/json" })
      end
      last, = stream.wait_for("Set by ")
      last - began
    ensure
      stream&.close
    end
  end
end
