# frozen_string_literal: true

module Roost
  module Live
    # How long each session rests before it is served again: three times as long as serving all of them once
    # takes. So one class is told of each answer at once, forty classes share what the machine can do, and
    # most of that is left for those who ask. May be used from any thread.
    class Throttle
      TIMES = 3
      LONGEST_REST = 0.2 # seconds

      def initialize(clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
        @clock = clock
        @took = {}
        @rested = {}
        @round = 0.0
        @lock = Mutex.new
      end

      # Serves a session: the block does.
      def serve(session_id)
        began = @clock.call
        yield
      ensure
        now = @clock.call
        @lock.synchronize do
          @round += now - began - @took.fetch(session_id, 0.0)
          @took[session_id] = now - began
          @rested[session_id] = now + (TIMES * @round).clamp(0, LONGEST_REST)
        end
      end

      # @return [Float] seconds until a session has rested
      def rest(session_id) = @lock.synchronize { [@rested.fetch(session_id, 0.0) - @clock.call, 0.0].max }

      # Forgets every session but these.
      def keep_only(session_ids)
        @lock.synchronize do
          [@took, @rested].each { |kept| kept.keep_if { |id, _| session_ids.include?(id) } }
          @round = @took.values.sum
        end
      end
    end
  end
end
