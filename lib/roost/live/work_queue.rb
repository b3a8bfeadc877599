# frozen_string_literal: true

require "set"

module Roost
  module Live
    # Which sessions have something to be told, for threads that take them one by one: each session
    # is with one thread at a time, and what comes meanwhile waits. What could not be carried out is
    # put back and is up again after a pause, a longer one each time, so that a session that always
    # fails holds up nobody.
    class WorkQueue
      FIRST_PAUSE = 0.1 # seconds
      LONGEST_PAUSE = 5.0

      def initialize(clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
        @clock = clock
        @scopes = {}
        @due = {}
        @failed = Hash.new(0)
        @busy = Set.new
        @lock = Mutex.new
        @wake = ConditionVariable.new
      end

      # @param after [Numeric] seconds until it is up
      def add(session_id, scopes, after: 0)
        @lock.synchronize { put(session_id, scopes, after) }
      end

      # Waits a second at most for a session that is up.
      # @return [Array(Integer, Set<Symbol>), nil]
      def take
        @lock.synchronize do
          @wake.wait(@lock, pause) unless up
          session_id = up
          next nil unless session_id

          @busy << session_id
          @due.delete(session_id)
          [session_id, @scopes.delete(session_id)]
        end
      end

      # The session that was taken is free again.
      # @param failed [Set<Symbol>, nil] what could not be carried out
      def done(session_id, failed: nil)
        @lock.synchronize do
          @busy.delete(session_id)
          if failed
            put(session_id, failed, [FIRST_PAUSE * (2**@failed[session_id]), LONGEST_PAUSE].min)
            @failed[session_id] = [@failed[session_id] + 1, 10].min
          else
            @failed.delete(session_id)
          end
          @wake.signal
        end
      end

      # Lets all that wait look again, before an end.
      def wake_all = @lock.synchronize { @wake.broadcast }

      private

      def put(session_id, scopes, after)
        (@scopes[session_id] ||= Set.new).merge(scopes)
        due = @clock.call + after
        # A pause after a failure is not cut short by what comes meanwhile.
        @due[session_id] = [@due[session_id], due].compact.then { |times| @failed.key?(session_id) ? times.max : times.min }
        @wake.signal
      end

      # The session that has waited longest among those that are up.
      def up
        now = @clock.call
        @scopes.each_key.find { |id| !@busy.include?(id) && @due[id] <= now }
      end

      def pause
        nearest = @scopes.each_key.reject { |id| @busy.include?(id) }.map { |id| @due[id] }.min
        nearest ? (nearest - @clock.call).clamp(0.005, 1) : 1
      end
    end
  end
end
