# frozen_string_literal: true

module Roost
  module Live
    # What this process remembers of one session between notices: the frozen lesson and
    # the answers so far, of which only the changed ones are read again; and what was tallied
    # last, so that charts stay where they were. Used by the broadcaster's thread only.
    class Mirror
      # A row may become visible after one with a higher seq; rows this young are read
      # again. Saves are single statements and take milliseconds.
      OVERLAP = 2.0

      # @return [Store::Sessions::Record, nil] as of the last refresh
      attr_reader :record

      def initialize(session_id)
        @session_id = session_id
        @answers = {}
        @settled = 0
        @recent = []
      end

      # @return [Core::Room::Snapshot, nil] nil when the session is gone
      def snapshot
        @record = Store::Sessions.new.find(session_id)
        return nil if record.nil? || record.deleted

        read_answers
        @last = Store::Rooms.new.snapshot(record, lesson: lesson, answers: @answers.transform_values(&:dup),
                                                  before: @last ? @last.tallies : {})
      end

      private

      attr_reader :session_id

      def lesson
        if @lesson_version != record.lesson_version
          @lesson = Store::Sessions.new.lesson(session_id)
          @lesson_version = record.lesson_version
        end
        @lesson
      end

      def read_answers
        Store::Answers.new.of(session_id, beyond: @settled).each do |seq, answer|
          keep(answer)
          @highest = seq
        end
        @recent << [record.now, @highest || 0]
        @settled = @recent.shift[1] while @recent.any? && @recent.first[0] < record.now - OVERLAP
      end

      # An answer that was read again is the same as before; what was worked out of it stands.
      def keep(answer)
        here = @answers[answer.slide_id] ||= {}
        here[answer.seat_id] = answer unless here[answer.seat_id] == answer
      end
    end
  end
end
