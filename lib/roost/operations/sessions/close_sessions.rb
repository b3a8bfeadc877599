# frozen_string_literal: true

module Roost
  module Operations
    # Ends sessions that nobody has ended, some hours after the last sign of life in them, as of then; and assignments whose
    # time is over for everybody.
    class CloseSessions
      HOURS = 4

      # @return [Array<Integer>] ids of those that were ended
      def call
        sessions = Store::Sessions.new
        silent = sessions.silent(HOURS).select { |id| ended_as_of(id, sessions) }
        silent + Store::Assignments.new.over.select { |id| CommandSession.new.by_clock(id, "end")&.ok? }
      end

      private

      # @return [Boolean] whether it could be ended
      def ended_as_of(id, sessions)
        sessions.transaction do
          sign = sessions.last_sign(id)
          ended = CommandSession.new.by_clock(id, "end")&.ok?
          sessions.ended_at(id, sign) if ended
          ended || false
        end
      end
    end
  end
end
