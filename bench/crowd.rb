# frozen_string_literal: true

module Bench
  # Forty honest students join and answer while one device behind the same address does, twenty times a second, what once shut
  # out everybody there; in turns with forty who come alone. The program runs with the limits it has in a school.
  class Crowd
    include Asking

    DEVICES = 40
    AT_A_TIME = 8
    TURNS = 3
    RATE = 20 # requests a second
    GOALS = { crowd_ratio: "at most 1.5", crowd_longest_ms: "at most 1000" }.freeze

    # @param server [Server]
    # @yieldreturn [Store::Sessions::Row] a session that has begun
    def initialize(server, &session)
      @server = server
      @session = session
      @waits = []
    end

    # @return [Hash] crowd_ratio: seconds for a student to be in and have answered, with against without (medians), of the
    #   device that does most; crowd_longest_ms: the longest of these with one of them
    def call
      alone = []
      ratios = ATTACKS.to_h do |name|
        with = Array.new(TURNS) do
          alone.concat(come)
          attacked(name) { come.tap { |times| @waits.concat(times) } }
        end
        [:"crowd_#{name}", (Bench.median(with.flatten) / Bench.median(alone)).round(2)]
      end
      { crowd_ratio: ratios.values.max, crowd_longest_ms: (@waits.max * 1000).round, **ratios }
    end

    ATTACKS = %i[nameless wrong_codes receivers passwords streams never_reading].freeze

    private

    # @return [Array<Float>] seconds for each of forty
    def come
      session = @session.call
      waiting = Queue.new
      DEVICES.times { |number| waiting << number }
      times = Queue.new
      Array.new(AT_A_TIME) { Thread.new { times << one(session, waiting.pop) until waiting.empty? } }.each(&:join)
      Array.new(times.length) { times.pop }
    end

    def one(session, number)
      began = Bench.clock
      socket = connect
      head, = ask(socket, "POST /join", { code: session.code, name: "Student #{number}" })
      place = head[%r{^location: (?:http://[^/]+)?(\S+)}i, 1] or raise "not let in: #{head.lines.first}"
      ask(socket, "GET #{place}")
      socket.close
      Net::HTTP.start(Server::HOST, @server.port) do |http|
        reply = http.post("/answers/#{place.split("/").last}", Answers.body(1), { "content-type" => "application/json" })
        raise "not taken: #{reply.code}" unless reply.code == "200"
      end
      Bench.clock - began
    end

    def connect = TCPSocket.new(Server::HOST, @server.port)

    # From a process of its own, which also has the patience to be turned away.
    def attacked(name)
      session = @session.call
      device = fork { Attack.new(@server, session).send(name) }
      sleep 3 # by then it has had its share
      yield
    ensure
      Process.kill(:KILL, device)
      Process.wait(device)
    end

    # The device.
    class Attack
      include Asking

      def initialize(server, session)
        @server = server
        @session = session
        @open = []
      end

      def nameless = all_the_time { |socket| ask(socket, "POST /join", { code: @session.code, name: "" }) }

      def wrong_codes = all_the_time { |socket| ask(socket, "POST /join", { code: SecureRandom.alphanumeric(6), name: "Ada" }) }

      def receivers = all_the_time { |socket| ask(socket, "POST /keypads", { code: @session.code, name: "Receiver" }) }

      def passwords
        page = Net::HTTP.get_response(URI("#{@server.address}/sign-in"))
        form = { authenticity_token: page.body[/name="authenticity_token" value="([^"]+)"/, 1],
                 email: "bench@heronsgate.example", password: "wrong wrong wrong" }
        cookie = page["set-cookie"].split(";").first
        all_the_time { |socket| ask(socket, "POST /sign-in", form, cookie: cookie) }
      end

      def streams = opened { "/stream/screen/#{@session.screen_key}" }

      def never_reading
        path = Dir[File.join(Roost::Settings::ROOT, "public/assets/maths-*.js")].first
        opened(requests: 20) { "/assets/#{File.basename(path)}" }
      end

      private

      def all_the_time
        loop do
          began = Bench.clock
          @socket ||= connect
          yield @socket
          sleep([(1.0 / RATE) - (Bench.clock - began), 0].max)
        rescue SystemCallError, EOFError
          @socket = nil
        end
      end

      def opened(requests: 1)
        loop do
          @open << connect.tap { |socket| requests.times { socket.write("GET #{yield} HTTP/1.1\r\nHost: marsh\r\n\r\n") } }
          @open.shift.close if @open.length > 400
          sleep 1.0 / RATE
        rescue SystemCallError
          next
        end
      end

      def connect = TCPSocket.new(Server::HOST, @server.port)
    end
  end
end
