# frozen_string_literal: true

module Roost
  module Web
    # Where seats' devices answer heartbeats, and say that they went to the background or are back: a bare Rack endpoint
    # that only takes note.
    class HeartbeatReply
      PACE = { burst: 10, rate: 2 }.freeze

      # @param engine [Live::Engine]
      # @param seats [KnownSeats]
      def initialize(engine, seats)
        @engine = engine
        @seats = seats
        @pace = Pace.new(**PACE)
      end

      # @param env [Hash] Rack environment; PATH_INFO is /TOKEN, /TOKEN/away or /TOKEN/back
      def call(env)
        token, word = env["PATH_INFO"].delete_prefix("/").split("/", 2)
        seat = @seats[token.to_s]
        note(seat, word) if seat && @pace.turn?(seat[:id])
        [seat ? 204 : 404, { "cache-control" => "no-store" }, []]
      rescue Sequel::Error
        [503, { "cache-control" => "no-store" }, []]
      end

      private

      def note(seat, word)
        case word
        when nil then @engine.heard(seat[:id])
        when "away", "back" then Operations::TellAway.new.call(seat, away: word == "away")
        end
      end
    end
  end
end
