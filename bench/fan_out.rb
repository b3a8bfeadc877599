# frozen_string_literal: true

module Bench
  # From the teacher's press on "next" to the last of a thousand streams, against bare writes of the same bytes to as
  # many. The two take turns, as in Answers.
  class FanOut
    STREAMS = 1000
    TURNS = 9
    PAUSE = 0.5 # seconds before each press
    GOALS = { fanout_ratio: "at most 2", rss_mb: "at most 200" }.freeze

    # The baseline: one process that writes what it is sent to each of its streams.
    class Bare
      # @param many [Integer] streams
      # @yieldparam bare [Bare]
      def self.open(many)
        Server.bare("bench/bare_streams.ru", workers: 0) do |server|
          bare = new(server, many)
          yield(bare).tap { bare.close }
        end
      end

      def initialize(server, many)
        @streams = Streams.new(Server::HOST, server.port, ["/"] * many)
        @http = Net::HTTP.new(Server::HOST, server.port)
        @written = 0
        sleep 1
      end

      def close = @streams.close

      # @param event [String]
      # @return [Float] milliseconds until the last stream has it
      def write(event)
        ending = ": #{@written += 1}\n\n"
        FanOut.timed(@streams, -> { @http.post("/", "#{event.chomp}\n#{ending}") }) { |text| text.end_with?(ending) }
      end
    end

    # @param press [#call] what makes them send
    # @yield see Streams#wait_until
    # @return [Float] milliseconds from the press to the last of the streams
    def self.timed(streams, press, &block)
      sleep PAUSE
      began = Bench.clock
      presser = Thread.new { press.call }
      last = streams.wait_until(&block)
      presser.join
      (last - began) * 1000
    end

    # @param turn [Integer] number of the slide that is left
    # @return [Array(Float, String)] milliseconds until the last stream has the next slide, and what it got
    def self.next_slide(streams, turn, press)
      event = nil
      took = timed(streams, press) { |text| text.include?("slide-s#{turn + 1}") && text.end_with?("\n\n") && (event = text) }
      [took, event.dup]
    end

    # @param many [Integer] streams
    # @yieldparam turn [Integer]
    # @yieldreturn [Array(Float, String)] milliseconds the program took, and what each stream got
    # @return [Array(Float, Float)] medians, of the program and of the baseline
    def self.in_turns(many, turns)
      times = Bare.open(many) do |bare|
        Array.new(turns) { |turn| yield(turn).then { |took, event| [took, bare.write(event)] } }
      end
      times.transpose.map { |each| Bench.median(each) }
    end

    # @param server [Server]
    # @param session [Store::Sessions::Row] that has begun, of at least TURNS + 1 slides, s0 and so on
    # @param tokens [Array<String>] of STREAMS seats in it
    def initialize(server, session, tokens)
      @server = server
      @session = session
      @http, @headers = server.teacher
      @streams = Streams.new(Server::HOST, server.port, tokens.map { |token| "/stream/seat/#{token}" })
      @streams.wait_until { |text| text.include?("\n\n") }
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      ours, theirs = FanOut.in_turns(STREAMS, TURNS) { |turn| next_slide(turn) }
      { fanout_ratio: (ours / theirs).round(2), fanout_ms: ours.round(1), bare_fanout_ms: theirs.round(1),
        rss_mb: @server.memory }.tap { @streams.close }
    end

    private

    def next_slide(turn)
      press = -> { @http.post("/desk/#{@session.id}/commands", "command=next&from=s#{turn}", @headers) }
      FanOut.next_slide(@streams, turn, press)
    end
  end
end
