# frozen_string_literal: true

module Roost
  module Web
    # Which seat a token belongs to, asked of the database once a process: seats do not change.
    class KnownSeats
      MOST = 5000

      def initialize
        @seats = {}
        @lock = Mutex.new
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
    end
  end
end
