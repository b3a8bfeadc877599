# frozen_string_literal: true

module Roost
  module Web
    # Which seat a token belongs to, asked of the database once a process, until it hears that seats of
    # that session have changed.
    class KnownSeats
      MOST = 5000

      # @param engine [Live::Engine]
      def initialize(engine)
        @seats = {}
        @lock = Mutex.new
        engine.on_seats { |session_id| forget(session_id) }
      end

      # @return [Hash, nil] :id, :session_id, :name
      def [](token)
        found = @lock.synchronize { @seats[token] }
        return found if found

        found = Store::Seats.new.by_token(token)
        return nil unless found

        @lock.synchronize do
          @seats.shift if @seats.length >= MOST
          @seats[token] = found
        end
      end

      private

      def forget(session_id)
        @lock.synchronize { @seats.delete_if { |_, seat| session_id.nil? || seat[:session_id] == session_id } }
      end
    end
  end
end
