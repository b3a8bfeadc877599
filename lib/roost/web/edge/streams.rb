# frozen_string_literal: true

module Roost
  module Web
    # Server-sent events through Puma's partial hijack, as a bare Rack endpoint: Sinatra
    # would add a length. Who may listen is settled here; the engine owns the socket after.
    class Streams
      HEADERS = { "content-type" => "text/event-stream", "cache-control" => "no-store",
                  "x-accel-buffering" => "no" }.freeze

      # @param engine [Live::Engine]
      # @param audience [Symbol] :seat, :screen or :desk
      def initialize(engine, audience)
        @engine = engine
        @audience = audience
      end

      # @param env [Hash] Rack environment; PATH_INFO is /ID: a seat's token, a screen's key,
      #   or the number of the session at the signed-in teacher's Desk
      def call(env)
        who = recipient(env["PATH_INFO"].delete_prefix("/"), env)
        return [404, { "content-type" => "text/plain" }, ["Not found"]] unless who
        return nothing_live if who == :alone

        address = Address.of(Rack::Request.new(env))
        [200, HEADERS.merge("rack.hijack" => ->(io) { engine.connect(io, address: address, **who) }), []]
      rescue Sequel::Error
        [503, { "content-type" => "text/plain", "retry-after" => "2" }, ["The database isn't answering."]]
      end

      private

      attr_reader :engine, :audience

      # To a browser that means: don't ask again.
      def nothing_live = [204, { "cache-control" => "no-store" }, []]

      def recipient(id, env)
        if audience == :seat
          seat = Store::Seats.new.by_token(id)
          return :alone if seat && seat[:self_paced]

          return seat && { audience: audience, session_id: seat[:session_id], seat_id: seat[:id] }
        end

        row = audience == :screen ? Store::Sessions.new.by_screen_key(id) : own_session(id, env["rodauth"].session_value)
        return row && :alone if row.nil? || row.self_paced

        { audience: audience, session_id: row.id, sign_in: env["roost.sign_in"] }
      end

      def own_session(id, account_id)
        Store::Sessions.new.of_teacher(account_id, id.to_i) if account_id && id.match?(/\A\d{1,18}\z/)
      end
    end
  end
end
