# frozen_string_literal: true

module Bench
  # From a piece of a stroke sent by the teacher's pen to that piece at the class screen, with a class connected.
  class Ink
    SEATS = 30
    PARTS = 120
    EVERY = 0.05 # seconds: as often as the pen sends
    GOALS = { ink_ms_p95: "at most 150" }.freeze

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
      session, tokens = @make.call(SEATS)
      Roost::Operations::CommandSession.new.call(session.account_id, session.id, "pen")
      seats, screen = [tokens.map { |token| "/stream/seat/#{token}" }, ["/stream/screen/#{session.screen_key}"]].map do |paths|
        Streams.new(Server::HOST, @server.port, paths).tap { |streams| streams.wait_until { |text| text.include?("\n\n") } }
      end
      draining = Thread.new { seats.wait_until(seconds: 60) { |text| text.clear && false } }
      times = Array.new(PARTS) { |part| draw(session, screen, part) }.drop(5).sort
      { ink_ms_p95: times[(times.length * 0.95).ceil - 1].round(1), ink_ms_median: Bench.median(times).round(1) }
    ensure
      draining&.kill
      [seats, screen].compact.each(&:close)
    end

    private

    # @return [Float] milliseconds
    def draw(session, screen, part)
      sleep EVERY
      points = Array.new(3) { |place| "#{(part * 3) + place},#{100 + place}" }.join(" ")
      form = { page: "s0", stroke: "bench-stroke-1", part: part, colour: 1, width: 0, points: points }
      began = Bench.clock
      sender = Thread.new { @http.post("/desk/#{session.id}/ink", URI.encode_www_form(form), @headers) }
      came = screen.wait_until { |text| text.include?(%("part":#{part},)) }
      sender.join
      (came - began) * 1000
    end
  end
end
