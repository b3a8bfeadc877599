# frozen_string_literal: true

module Roost
  module Operations
    # A class over a term, by the evidence of what its teacher gave it that has ended.
    class ClassOverTime
      SESSIONS = 200 # the latest
      MISSED = 6
      LEAST = 5 # students of a question that is said to be missed

      # time:: Core::Analysis::ClassOverTime; missed:: Array of Missed, the most missed first; closing:: Array of Closing, the
      # latest first
      Overview = Struct.new(:time, :missed, :closing, keyword_init: true)
      # slide:: as it was asked the last time
      Missed = Struct.new(:slide, :session_id, :share, :students, keyword_init: true)
      # What the class gave to a closing question. title:: of the lesson; given:: Array of [String, Integer]
      Closing = Struct.new(:session_id, :title, :at, :asked, :students, :given, keyword_init: true)

      # @return [Overview]
      def call(account_id, class_id)
        sessions = sessions(account_id, class_id)
        Overview.new(time: of(class_id, sessions), missed: missed(sessions), closing: closing(sessions)).freeze
      end

      # @return [Core::Analysis::ClassOverTime]
      def time(account_id, class_id) = of(class_id, sessions(account_id, class_id))

      private

      # @return [Array<Hash>] :id, :title, :at and :self_paced of those that have ended
      def sessions(account_id, class_id)
        ended = Store::PastSessions.new.ended_of_class(account_id, class_id, SESSIONS)
        WriteEvidence.new.call(ended.keys)
        rows = Store::PastSessions.new.by_id(ended.keys).values
        rows.map { |row| { id: row.id, title: row.title, at: ended.fetch(row.id), self_paced: row.self_paced } }
      end

      def of(class_id, sessions)
        ids = sessions.map { |row| row[:id] }
        students = Store::Students.new.of_class(class_id).map(&:id)
        earned = Store::Evidence.new.by_student(ids, students).map do |row|
          [Core::Analysis::Mastery::Earned.new(**row.except(:tags)).freeze, row[:tags]]
        end
        Core::Analysis::ClassOverTime.new(sessions: sessions, results: Store::Evidence.new.class_results(ids, students),
                                          earned: earned, came: Store::Seats.new.came(ids, students), now: Store::Sessions.new.now)
      end

      # Each question as it went the last time.
      def missed(sessions)
        ended = sessions.to_h { |row| [row[:id], row[:at]] }
        latest = Store::Evidence.new.question_results(ended.keys).group_by { |row| row[:origin] }
                                .values.map { |all| all.max_by { |row| ended.fetch(row[:session_id]) } }
        enough = latest.select { |row| row[:students] >= LEAST && row[:share] < 1 }
        enough.min_by(MISSED) { |row| row[:share] }.filter_map do |row|
          slide = Store::Sessions.new.lesson(row[:session_id]).slide(row[:slide_id])
          slide && Missed.new(slide: slide, **row.slice(:session_id, :share, :students)).freeze
        end
      end

      def closing(sessions)
        by_id = sessions.to_h { |row| [row[:id], row] }
        given = Store::Evidence.new.closing(by_id.keys).map do |row|
          Closing.new(**row, **by_id.fetch(row[:session_id]).slice(:title, :at)).freeze
        end
        given.sort_by { |each| -each.at }
      end
    end
  end
end
