# frozen_string_literal: true

module Roost
  module Web
    # Which seat a token belongs to, asked of the database once a process, until it hears that seats of
    # that session have changed.
    class KnownSeats
      # @param engine [Live::Engine]
      def initialize(engine)
        @seats = Core::LruCache.new(5000)
        engine.on_seats { |session_id| forget(session_id) }
      end

      # @return [Hash, nil] :id, :session_id, :name
      def [](token) = @seats.fetch(token) { Store::Seats.new.by_token(token) }

      private

      def forget(session_id) = @seats.delete_if { |seat| session_id.nil? || seat[:session_id] == session_id }
    end
  end
end
