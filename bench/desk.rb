# frozen_string_literal: true

module Bench
  # What it costs to tell the Desk of one answer more, in a large class of which half have answered: the answer itself, the
  # reading, the view, its page.
  class Desk
    SEATS = 500
    ANSWERS = 60
    EVERY = 0.3 # seconds; longer than the Desk ever waits
    GOALS = { desk_tick_cpu_ms: "none set" }.freeze

    # @param server [Server]
    # @yieldparam seats [Integer] how many
    # @yieldreturn [Array(Store::Sessions::Row, Array<String>)] a session whose poll, s1, is open, and tokens of its seats
    def initialize(server, &make)
      @server = server
      @session, @tokens = make.call(SEATS)
    end

    # @return [Hash{Symbol=>Numeric}] CPU time, PostgreSQL's with it
    def call
      _, headers = @server.teacher
      desk = Streams.new(Server::HOST, @server.port, ["/stream/desk/#{@session.id}"]) { "Cookie: #{headers["cookie"]}\r\n" }
      Net::HTTP.start(Server::HOST, @server.port) do |http|
        first = @tokens.first(SEATS / 2)
        more = @tokens.last(ANSWERS)
        first.each { |token| answer(http, token) }
        wait(desk, first.length)
        cpu = Cpu::Meter.new(@server).whole { more.each_with_index { |token, place| tick(http, desk, token, first.length + place) } }
        { desk_tick_cpu_ms: (cpu * 1000 / ANSWERS).round(1) }
      end
    ensure
      desk&.close
    end

    private

    def tick(http, desk, token, before)
      sleep EVERY
      answer(http, token)
      wait(desk, before + 1)
    end

    def answer(http, token)
      http.post("/answers/#{token}", Answers.body(1), { "content-type" => "application/json" })
    end

    def wait(desk, count) = desk.wait_until { |text| text.include?("<strong>#{count}</strong> answered") }
  end
end
