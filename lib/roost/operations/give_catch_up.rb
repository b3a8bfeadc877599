# frozen_string_literal: true

module Roost
  module Operations
    # From a session, those who were absent or below the line get what they missed: an assignment that is theirs alone,
    # next week from Monday to Friday, by their passes.
    class GiveCatchUp
      NOBODY = "Nobody of the class has missed anything."

      # @param account_id [Integer]
      # @param session_id [Integer] of a session that was given to a class
      # @param chosen [Array<Integer>, nil] ids of students; nil for all who need it
      # @return [Core::Reading, nil] of the Store::Sessions::Row of the assignment; nil when she has no such session
      def call(account_id, session_id, chosen: nil)
        sessions = Store::Sessions.new
        row = sessions.of_teacher(account_id, session_id)
        return nil unless row

        missed = GiveCatchUp.missed(row).select { |each| chosen.nil? || chosen.include?(each.student.id) }
        return Core::Reading.refused(NOBODY) if missed.empty?

        sessions.transaction do
          given = sessions.create(**about(row), lesson: sessions.lesson_of(row), state: state(missed))
          Store::Assignments.new.create(given.id, assignment(missed))
          Core::Reading.ok(sessions.find(given.id))
        end
      end

      # @return [Array<Core::Analysis::CatchUp::Missed>]
      def self.missed(row) = Core::Analysis::CatchUp.new(Store::Records.new.of(row)).missed

      private

      def about(row)
        options = Core::Session::Options.new(**row.options.to_h, entry: "pass", teams: "", speed_share: "0").freeze
        { account_id: row.account_id, lesson_id: row.lesson_id, title: "Catch up: #{row.title}"[0, StartSession::TITLE_LIMIT],
          class_id: row.class_id, class_name: row.class_name, options: options }
      end

      def times
        @times ||= SchoolClock.here.next_week(Store::Sessions.new.now)
      end

      def assignment(missed)
        rules = Core::Session::Sitting::RULES.merge("feedback" => "explained")
        pieces = missed.to_h { |each| [each.student.id.to_s, each.slides] }
        Core::Session::Assignment.new(sections: [], opens_at: times.first, closes_at: times.last, rules: rules, pieces: pieces)
      end

      def state(missed)
        AssignLesson.state(missed.flat_map(&:questions).uniq, times.first, times.last)
      end
    end
  end
end
