# frozen_string_literal: true

module Roost
  module Web
    # Where seats' devices answer heartbeats: a bare Rack endpoint that only takes note.
    class Heard
      PACE = { burst: 10, rate: 2 }.freeze

      # @param engine [Live::Engine]
      # @param seats [KnownSeats]
      def initialize(engine, seats)
        @engine = engine
        @seats = seats
        @pace = Pace.new(**PACE)
      end

      # @param env [Hash] Rack environment; PATH_INFO is /TOKEN
      def call(env)
        seat = @seats[env["PATH_INFO"].delete_prefix("/")]
        @engine.heard(seat[:id]) if seat && @pace.turn?(seat[:id])
        [seat ? 204 : 404, { "cache-control" => "no-store" }, []]
      rescue Sequel::Error
        [503, { "cache-control" => "no-store" }, []]
      end
    end
  end
end
