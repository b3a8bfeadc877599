# frozen_string_literal: true

module Bench
  # One device on a fast line that sends the longest and oddest answers of every kind, one after the
  # other as fast as it can, into a class that has given long answers already; with the Desk, the
  # class screen and six streams nobody reads open there. Meanwhile another class goes on. Turns
  # with and without take turns.
  class Hostile
    GOALS = { hostile_ratio: "at most 1.5", hostile_rss_mb: "at most 250" }.freeze
    SEATS = 30
    TURNS = 40
    LONG = 100 # answers that are there already
    # The device: so many bytes a second, so many seconds away.
    LINE = 2.5e6
    AWAY = 0.01
    MARKS = "a\u0301\u0323"
    # What a hostile device sends to each kind of question: bench/kinds/KIND/hostile.rb.
    BODIES = Hash.new { |all, kind| all[kind] = [] }
    # Answers that are there already: kind to what makes the value of one seat, by its number.
    LONGEST = {} # rubocop:disable Style/MutableConstant

    # @param account [Integer]
    # @param server [Server]
    def initialize(account, server)
      @account = account
      @server = server
    end

    # @return [Hash] hostile_ratio: the quiet class's next slide, from the press to the last of its
    #   streams, with the attack against without (medians); hostile_rss_mb: the largest worker afterwards
    def call
      victim, tokens = session(quiet, SEATS)
      target, hostile = session(every_kind, LONG)
      long_answers(target)
      @http, @headers = @server.teacher
      @streams = Streams.new(Server::HOST, @server.port, tokens.map { |token| "/stream/seat/#{token}" })
      @streams.wait_until { |text| text.include?("\n\n") }
      watch(target, hostile.first)
      times = Array.new(TURNS) do |turn|
        turn.odd? ? attacked(target, hostile.first, turn / 2) { following(victim, turn) } : following(victim, turn)
      end
      quiet, loud = times.partition.with_index { |_, turn| turn.even? }.map { |all| Bench.median(all) * 1000 }
      { hostile_quiet_ms: quiet.round(1), hostile_loud_ms: loud.round(1), hostile_ratio: (loud / quiet).round(2),
        hostile_rss_mb: largest }
    ensure
      @streams&.close
      @watching&.each(&:close)
    end

    private

    def session(slides, seats)
      lesson = Roost::Store::Lessons.new.create(@account, Roost::Core::Lesson.new(title: "Marsh", slides: slides))
      session = Roost::Operations::StartSession.new.call(@account, lesson, { "opens_itself" => "1", "may_change" => "1" }).value
      tokens = Array.new(seats) { |number| Roost::Store::Seats.new.create(session.id, "Student #{number}").last }
      command(session, "begin")
      [session, tokens]
    end

    def command(session, name, **arguments)
      Roost::Operations::CommandSession.new.call(session.account_id, session.id, name, arguments.transform_keys(&:to_s))
    end

    def quiet
      Array.new(TURNS + 2) { |number| Roost::Core::Slide.new(id: "s#{number}", heading: "Birds of the marsh", text: "Dusk " * 60) }
    end

    def every_kind
      picture = Roost::Core::Picture.new(file: "#{"a" * 64}.png", width: 800, height: 600, alt: "").freeze
      Roost::Core::Kinds.all.map do |kind|
        Roost::Core::Slide.new(id: kind.kind, heading: "Everything", pictures: [picture],
                               prompt: kind.new(id: "p#{kind.kind}", settings: {}))
      end
    end

    # What a class of a hundred gave, each kind as long as its answers get.
    def long_answers(session)
      seats = Roost::Store::Seats.new.of(session.id)
      rows = LONGEST.flat_map do |kind, value|
        seats.map.with_index do |seat, number|
          { session_id: session.id, seat_id: seat.id, slide_id: kind, value: Sequel.pg_jsonb(value.call(number)), final: true,
            late: false, save_no: 1, save_id: SecureRandom.uuid, received_at: Sequel.lit("now()") }
        end
      end
      Roost::Store::Database.connection[:answers].multi_insert(rows)
    end

    # The Desk, the class screen, and six streams of a seat that never reads.
    def watch(session, token)
      watched = [open_stream("desk/#{session.id}", "Cookie: #{@headers["cookie"]}\r\n"),
                 open_stream("screen/#{session.screen_key}")]
      Thread.new { read_all(watched) }
      @watching = Array.new(6) { open_stream("seat/#{token}") }
    end

    def open_stream(path, header = "")
      TCPSocket.new(Server::HOST, @server.port).tap do |socket|
        socket.write("GET /stream/#{path} HTTP/1.1\r\nHost: #{Server::HOST}\r\n#{header}\r\n")
      end
    end

    # Until they are closed.
    def read_all(sockets)
      loop { IO.select(sockets, nil, nil, 1)&.first&.each { |socket| socket.readpartial(1_000_000) } }
    rescue IOError, SystemCallError
      nil
    end

    # Seconds from the press to the last of the streams.
    def following(session, turn)
      sleep 0.4
      began = Bench.clock
      presser = Thread.new { @http.post("/desk/#{session.id}/commands", "command=next&from=s#{turn}", @headers) }
      last = @streams.wait_until { |text| text.include?("slide-s#{turn + 1}") && text.end_with?("\n\n") }
      presser.join
      last - began
    end

    # Attacks with one kind of question, from a process of its own so that only the server is in the way.
    def attacked(session, token, number)
      kind = Roost::Core::Kinds.all[number % Roost::Core::Kinds.all.length].kind
      command(session, "jump", slide: kind)
      command(session, "show", what: "results")
      attacker = fork { attack(kind, token) }
      sleep 0.6 # so that it is under way
      yield
    ensure
      Process.kill(:KILL, attacker)
      Process.wait(attacker)
    end

    def attack(kind, token)
      http = Net::HTTP.new(Server::HOST, @server.port).start
      ready = BODIES[kind].cycle.first(40).map.with_index do |fields, number|
        JSON.generate({ slide: kind, fields: fields, final: false, save_no: (Time.now.to_i % 1_000_000 * 1_000) + number,
                        save_id: SecureRandom.uuid })
      end
      ready.cycle do |body|
        http.post("/answers/#{token}", body, "Content-Type" => "application/json")
        sleep AWAY + (body.bytesize / LINE)
      end
    ensure
      exit!
    end

    # Megabytes of the largest worker.
    def largest
      @server.workers.map { |pid| File.read("/proc/#{pid}/status")[/^VmRSS:\s+(\d+)/, 1].to_i / 1024 }.max
    end
  end
end

Dir[File.join(__dir__, "kinds/*/hostile.rb")].each { |path| require path }
