# frozen_string_literal: true

module Roost
  module Operations
    # Lets only so many wait for something slow at a time; whoever comes then does without.
    module ConcurrencyLimit
      # @param turns [SizedQueue] of as many as may wait
      # @return what the block gives; nil when there was no turn
      def self.take(turns)
        turns.push(true, true)
        begin
          yield
        ensure
          turns.pop
        end
      rescue ThreadError
        nil
      end
    end
  end
end
