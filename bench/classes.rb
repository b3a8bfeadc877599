# frozen_string_literal: true

module Bench
  # Forty classes of thirty at once, each with its Desk and its class screen open: 240 answers a second
  # together, from an answer sent to its count at the Desk; and a command to all of them at once.
  class Classes
    CLASSES = 40
    SEATS = 30
    RATE = 240.0 # answers a second, of all together
    TURNS = 7
    SENDERS = 8
    GOALS = { classes_tally_ms_p95: "at most 400", classes_fanout_ratio: "at most 8" }.freeze

    # session:: Store::Sessions::Row; tokens:: of its seats
    Klass = Struct.new(:session, :tokens, keyword_init: true)
    private_constant :Klass

    # @param server [Server]
    # @yieldparam seats [Integer] how many
    # @yieldreturn [Array(Store::Sessions::Row, Array<String>)] a session that has begun, and tokens of its seats
    def initialize(server, &make)
      @server = server
      @make = make
      @http, @headers = server.teacher
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      @classes = Array.new(CLASSES) { Klass.new(**%i[session tokens].zip(@make.call(SEATS)).to_h) }
      @seats = open_seats
      @screens = open_streams(@classes.map { |each| "/stream/screen/#{each.session.screen_key}" })
      @desks = @classes.map { |each| open_streams(["/stream/desk/#{each.session.id}"]) }
      { **fan_out, **tally }
    ensure
      [@seats, @screens, *@desks].compact.each(&:close)
    end

    private

    def open_streams(paths)
      # Each from another address, as classes are.
      streams = Streams.new(Server::HOST, @server.port, paths) do |path|
        "Cookie: #{@headers["cookie"]}\r\nX-Forwarded-For: 10.0.#{path.sum % 250}.1\r\n"
      end
      streams.tap { streams.wait_until { |text| text.include?("\n\n") } }
    end

    # Each class from an address of its own.
    def open_seats
      paths = @classes.flat_map { |each| each.tokens.map { |token| "/stream/seat/#{token}" } }
      streams = Native::Streams.new(@server.port, paths) { |path| ["X-Forwarded-For: 10.0.#{path.sum % 250}.1"] }
      streams.tap { streams.wait_for("data: <") }
    end

    # All classes go on at once; the last of their seats has the new slide. Against bare writes of the same bytes to as
    # many streams, in turns.
    def fan_out
      ours, native, ruby = FanOut.in_turns(CLASSES * SEATS, TURNS) { |turn| next_slide(turn) }
      { classes_fanout_ratio: (ours / ruby).round(2), classes_fanout_native_ratio: (ours / native).round(2),
        classes_fanout_ms: ours.round(1), bare_classes_fanout_ms: native.round(1) }
    end

    def next_slide(turn)
      press = -> { @classes.each_slice(CLASSES / SENDERS).map { |some| Thread.new { press_next(some, turn) } }.each(&:join) }
      FanOut.next_slide(@seats, turn, press)
    end

    def press_next(classes, turn)
      Net::HTTP.start(Server::HOST, @server.port) do |http|
        classes.each { |each| http.post("/desk/#{each.session.id}/commands", "command=next&from=s#{turn}", @headers) }
      end
    end

    # The slide that is up asks something. Each seat answers once, the classes in turns.
    def tally
      seen = @classes.map { [] }
      watching = @desks.each_with_index.map { |desk, place| Thread.new { watch(desk, seen[place]) } }
      draining = Thread.new { @screens.wait_until(seconds: 60) { |text| text.clear && false } }
      sent = send_all
      watching.each(&:join)
      waits = @classes.each_index.flat_map do |place|
        sent[place].sort.each_with_index.map { |time, number| seen[place].find { |count, _| count > number }[1] - time }
      end
      { classes_tally_ms_p95: (waits.sort[(waits.length * 0.95).ceil - 1] * 1000).round,
        classes_tally_ms_median: (Bench.median(waits) * 1000).round }
    ensure
      draining&.kill
    end

    def watch(desk, seen)
      desk.wait_until(seconds: 60) do |text|
        done = false
        while (event = text.slice!(/\A.*?\n\n/m))
          count = event[%r{<strong>(\d+)</strong> answered}, 1].to_i
          seen << [count, Bench.clock]
          done ||= count >= SEATS
        end
        done
      end
    end

    # @return [Array<Array<Float>>] for each class when its answers were sent
    def send_all
      jobs = Array.new(SEATS) { |seat| @classes.each_index.map { |place| [place, seat] } }.flatten(1)
      waiting = Queue.new
      began = Bench.clock + 0.2
      jobs.each_with_index { |(place, seat), number| waiting << [place, seat, began + (number / RATE)] }
      sent = @classes.map { Queue.new }
      Array.new(SENDERS) { Thread.new { send_some(waiting, sent) } }.each(&:join)
      sent.map { |times| Array.new(times.length) { times.pop } }
    end

    def send_some(waiting, sent)
      Net::HTTP.start(Server::HOST, @server.port) do |http|
        loop do
          place, seat, due = waiting.pop(true)
          sleep([due - Bench.clock, 0].max)
          sent[place] << Bench.clock
          body = JSON.generate({ slide: "s#{TURNS}", fields: { options: ["o#{(seat % 4) + 1}"] }, final: true, save_no: 1,
                                 save_id: SecureRandom.uuid })
          http.post("/answers/#{@classes[place].tokens[seat]}", body, { "content-type" => "application/json" })
        end
      end
    rescue ThreadError
      nil
    end
  end
end
