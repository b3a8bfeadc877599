# frozen_string_literal: true

module Roost
  module Operations
    # Ends sessions that nobody has ended, some hours after the last sign of life in them, and assignments whose time is
    # over for everybody.
    class CloseSessions
      HOURS = 4

      # @return [Array<Integer>] ids of those that were ended
      def call
        (Store::Sessions.new.silent(HOURS) + Store::Assignments.new.over).select do |id|
          ended = CommandSession.new.by_clock(id, "end")
          ended&.ok?
        end
      end
    end
  end
end
