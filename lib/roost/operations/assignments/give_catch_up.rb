# frozen_string_literal: true

module Roost
  module Operations
    # From a session, those who were absent or below the line get what they missed: an assignment that is theirs alone, by
    # their passes, from now on for a week or as the teacher says.
    class GiveCatchUp
      NOT_YOURS = "You don't teach this class any more, so nothing can be assigned to it."
      NOBODY = "Nobody in the class has missed anything."

      # @param account_id [Integer]
      # @param session_id [Integer] of a session that was given to a class
      # @param chosen [Array<Integer>, nil] ids of students; nil for all who need it
      # @param form [Hash{String=>String}] "opens_at" and "closes_at" as SchoolTime reads them, or neither; "once" as StartSession
      # @return [Core::Reading, nil] of the Store::Sessions::Row of the assignment; nil when she has no such session
      def call(account_id, session_id, chosen: nil, form: {})
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row
        return Core::Reading.refused(NOT_YOURS) unless row.class_id && Store::Classes.new.find(account_id, row.class_id)

        missed = GiveCatchUp.missed(row).select { |each| chosen.nil? || chosen.include?(each.student.id) }
        return Core::Reading.refused(NOBODY) if missed.empty?

        times(form).map { |opens_at, closes_at| give(row, missed, opens_at, closes_at, StartSession.once(form)) }
      end

      # @return [Array<Core::Analysis::CatchUp::Missed>]
      def self.missed(row) = Core::Analysis::CatchUp.new(Store::Records.new.of(row)).missed

      private

      # @return [Core::Reading] of when it opens and closes
      def times(form)
        now = Store::Sessions.new.now
        return Core::Reading.ok(SchoolClock.here.week_from(now)) unless form["opens_at"] || form["closes_at"]

        Core::Session::Assignment.read_times(form, time: SchoolClock.here, now: now)
      end

      def give(row, missed, opens_at, closes_at, once)
        sessions = Store::Sessions.new
        sessions.transaction do
          state = AssignLesson.state(missed.flat_map(&:questions).uniq, opens_at, closes_at)
          given = sessions.asked_once(row.account_id, once) ||
                  sessions.create(**about(row), lesson: sessions.lesson_of(row), state: state, once: once)
          Store::Assignments.new.create(given.id, assignment(missed, opens_at, closes_at))
          sessions.find(given.id)
        end
      end

      def about(row)
        rules = Core::Session::Rules::CURRENT.version
        options = Core::Session::Options.new(**row.options.to_h, entry: "pass", teams: "", speed_share: "0", released: false,
                                                                 rules_version: rules).freeze
        { account_id: row.account_id, lesson_id: row.lesson_id, title: "Catch up: #{row.title}"[0, StartSession::TITLE_LIMIT],
          class_id: row.class_id, class_name: row.class_name, options: options }
      end

      def assignment(missed, opens_at, closes_at)
        rules = Core::Session::Sitting::RULES.merge("feedback" => "explained")
        pieces = missed.to_h { |each| [each.student.id.to_s, each.slides] }
        Core::Session::Assignment.new(sections: [], opens_at: opens_at, closes_at: closes_at, rules: rules, pieces: pieces)
      end
    end
  end
end
