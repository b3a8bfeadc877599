# frozen_string_literal: true

module Roost
  module Live
    # What the ticker has to know of the questions of the sessions that are looked at here: when
    # one's time is up, and where answers still come in. May be used from any thread.
    class OpenQuestions
      def initialize
        @deadlines = {}
        @answering = {}
        @lock = Mutex.new
      end

      # @param moment [Core::Session::Moment] of the session, as it is now
      # @return [Boolean] whether answering has ended there just now
      def note(moment)
        session_id = moment.id
        state = moment.state
        @lock.synchronize do
          @deadlines[session_id] = moment.due_at
          before = @answering.key?(session_id) && @answering[session_id].nil?
          if state.open? then @answering[session_id] = nil
          elsif before then @answering[session_id] = clock + Core::Session::LineDelay::MOST
          end
          before && !state.open?
        end
      end

      # @return [Hash{Integer=>Float}] session id to the deadline of its open question, where it has one
      def deadlines = @lock.synchronize { @deadlines.compact }

      # Sessions whose open question is being answered, or was until just now.
      # @return [Array<Integer>] ids
      def answering = @lock.synchronize { @answering.select { |_, ending| ending.nil? || ending > clock }.keys }

      # Forgets every session but these.
      def keep_only(session_ids)
        @lock.synchronize { [@deadlines, @answering].each { |kept| kept.keep_if { |id, _| session_ids.include?(id) } } }
      end

      private

      def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
