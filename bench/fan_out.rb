# frozen_string_literal: true

module Bench
  # From the teacher's press on "next" to the last of so many streams, against bare writes of the same bytes to as
  # many, by a program in C and by one in Ruby. They take turns, as in Answers.
  class FanOut
    STREAMS = [300, 1000, 3000].freeze
    TURNS = 5
    PAUSE = 0.5 # seconds before each press
    GOALS = { fanout_300_ratio: "at most 4", fanout_1000_ratio: "at most 2.5", fanout_3000_ratio: "at most 2",
              fanout_ratio: "at most 2", rss_mb: "at most 200" }.freeze

    # A baseline at work: a server writes what it is sent to each of its streams.
    class Bare
      # Both of them, in C and in Ruby.
      # @param many [Integer] streams
      # @yieldparam bare [Array<Bare>]
      def self.both(many)
        Native.bare_streams do |port|
          Server.bare("bench/bare_streams.ru", workers: 0) do |server|
            both = [port, server.port].map { |each| new(each, many) }
            yield(both).tap { both.each(&:close) }
          end
        end
      end

      def initialize(port, many)
        @streams = Native::Streams.new(port, ["/"] * many)
        @http = Net::HTTP.new(Server::HOST, port)
        @written = 0
        sleep 1
      end

      def close = @streams.close

      # @param event [String]
      # @return [Float] milliseconds until the last stream has it
      def write(event)
        ending = ": #{@written += 1};"
        FanOut.timed(@streams, ending, -> { @http.post("/", "#{event.chomp}\n#{ending}\n\n") }).first
      end
    end

    # @param streams [Native::Streams]
    # @param press [#call] what makes them send
    # @return [Array(Float, String)] milliseconds from the press until the last stream has been sent the mark, and what one got
    def self.timed(streams, mark, press)
      sleep PAUSE
      began = nil
      presser = Thread.new do
        sleep 0.02 # until they listen
        began = Bench.clock
        press.call
      end
      last, text = streams.wait_for(mark)
      presser.join
      [(last - began) * 1000, text]
    end

    # @param turn [Integer] number of the slide that is left
    # @return [Array(Float, String)] milliseconds until the last stream has the next slide, and what it got
    def self.next_slide(streams, turn, press) = timed(streams, "slide-s#{turn + 1}", press)

    # @param many [Integer] streams
    # @yieldparam turn [Integer]
    # @yieldreturn [Array(Float, String)] milliseconds the program took, and what each stream got
    # @return [Array<Float>] medians: of the program, of the baseline in C, of the one in Ruby
    def self.in_turns(many, turns)
      times = Bare.both(many) do |both|
        Array.new(turns) { |turn| yield(turn).then { |took, event| [took, *both.map { |bare| bare.write(event) }] } }
      end
      times.transpose.map { |each| Bench.median(each) }
    end

    # @param server [Server]
    # @yieldparam seats [Integer] how many
    # @yieldreturn [Array(Store::Sessions::Row, Array<String>)] a session that has begun, of at least TURNS + 1 slides, s0 and
    #   so on, and tokens of that many seats in it
    def initialize(server, &make)
      @server = server
      @make = make
      @http, @headers = server.teacher
    end

    # @return [Hash{Symbol=>Numeric}]
    def call = STREAMS.map { |many| compared(many) }.reduce(:merge)

    private

    def compared(many)
      session, tokens = @make.call(many)
      streams = Native::Streams.new(@server.port, tokens.map { |token| "/stream/seat/#{token}" })
      streams.wait_for("data: <")
      ours, native, ruby = FanOut.in_turns(many, TURNS) { |turn| next_slide(session, streams, turn) }
      { "fanout_#{many}_ratio": (ours / native).round(2), "fanout_#{many}_ms": ours.round(1),
        "fanout_#{many}_bare_ms": native.round(1),
        **(many == 1000 ? { fanout_ratio: (ours / ruby).round(2), rss_mb: @server.memory } : {}) }
    ensure
      streams&.close
    end

    def next_slide(session, streams, turn)
      press = -> { @http.post("/desk/#{session.id}/commands", "command=next&from=s#{turn}", @headers) }
      FanOut.next_slide(streams, turn, press)
    end
  end
end
