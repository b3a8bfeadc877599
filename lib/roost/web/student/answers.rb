# frozen_string_literal: true

require "json"
require "pg"

module Roost
  module Web
    # Where seats save their answers: a bare Rack endpoint, since a whole class uses it
    # at once. Speaks JSON; the device keeps what it sent until this has acknowledged.
    class Answers
      MOST_BYTES = 250_000
      # Saves of one seat: a device sends a draft every half a second at most.
      PACE = { burst: 12, rate: 4 }.freeze
      # Bytes of which each counts as another.
      A_TURN = 25_000
      AWAY = "The database isn't answering. Your answer is on this device and will be sent."
      SOON = "Saved on this device; it is sent in a moment."
      HEADERS = { "content-type" => "application/json", "cache-control" => "no-store" }.freeze
      TAKEN_NEVER = [PG::DataException, PG::IntegrityConstraintViolation].freeze

      # @param engine [Live::Engine]
      # @param seats [KnownSeats]
      def initialize(engine, seats)
        @engine = engine
        @seats = seats
        @lessons = Core::LruCache.new(50)
        @queue = Store::AnswerQueue.new
        @pace = Pace.new(**PACE)
        engine.on_command { |session_id| forget(session_id) }
      end

      # @param env [Hash] Rack environment; PATH_INFO is /TOKEN
      def call(env)
        token = env["PATH_INFO"].delete_prefix("/")
        seat = @seats[token] || Store::Seats.new.by_former_token(token)
        return reply(404, state: "refused", message: "This seat is not known. Join again with the code on the board.") unless seat

        return reply(429, state: "unsent", message: SOON) unless @pace.turn?(seat[:id], 1 + (env["CONTENT_LENGTH"].to_i / A_TURN))

        body = env["rack.input"].read(MOST_BYTES + 1).to_s
        return reply(413, state: "refused", message: "That answer is too large. Shorten it.") if body.bytesize > MOST_BYTES

        message = JSON.parse(body, max_nesting: 6)
        saved = Operations::SaveAnswer.new(answers: @queue).call(seat, lesson(seat[:session_id], message), message)
        engine.touched(seat[:session_id]) unless saved.state == "refused"
        reply(saved.state == "refused" ? 422 : 200, **saved.to_h)
      rescue JSON::ParserError, EncodingError
        reply(400, state: "refused", message: Operations::SaveAnswer::BAD)
      rescue Sequel::Error => e
        return reply(422, state: "refused", message: Operations::SaveAnswer::BAD) if taken_never?(e)

        reply(503, state: "unsent", message: AWAY)
      end

      private

      attr_reader :engine

      # Whether the database can't take it now or ever; anything else may pass.
      def taken_never?(error) = TAKEN_NEVER.any? { |kind| error.wrapped_exception.is_a?(kind) }

      def reply(status, **said) = [status, HEADERS.dup, [JSON.generate(said.compact)]]

      # Frozen lessons change only by commands, of which this process hears; a slide not known yet is
      # looked for again.
      def lesson(session_id, message)
        kept = remembered(session_id)
        return kept if !message.is_a?(Hash) || kept.slide(message["slide"])

        forget(session_id)
        remembered(session_id)
      end

      def forget(session_id) = session_id ? @lessons.delete(session_id) : @lessons.clear

      def remembered(session_id) = @lessons.fetch(session_id) { Store::Sessions.new.lesson(session_id) }
    end
  end
end
