# frozen_string_literal: true

module Roost
  module Web
    # How fast each of many may go: so many at once, and so many a second on average (token bucket).
    # Counts in this process; remembers the last KEPT who came.
    class Pace
      KEPT = 5_000

      # @param burst [Integer] at once
      # @param rate [Numeric] a second
      # @param clock [#call] seconds that never go back
      def initialize(burst:, rate:, clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
        @burst = burst
        @rate = rate
        @clock = clock
        @left = {}
        @lock = Mutex.new
      end

      # Takes turns if there is one; what costs more than there are is made up for afterwards.
      # @param who anything that says who it is
      # @param cost [Numeric] in turns
      def turn?(who, cost = 1)
        @lock.synchronize do
          now = @clock.call
          left, at = @left.delete(who) || [@burst, now]
          left = [@burst, left + ((now - at) * @rate)].min
          @left.shift if @left.length >= KEPT
          @left[who] = [left >= 1 ? left - cost : left, now]
          left >= 1
        end
      end
    end
  end
end
