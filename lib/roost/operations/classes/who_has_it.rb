# frozen_string_literal: true

module Roost
  module Operations
    # Who in a class has which standard or subtopic, by the evidence of all that its teacher asked it (Core::Analysis::Mastery).
    class WhoHasIt
      SESSIONS = 400 # the latest, more than a school year
      PERIODS = { "all" => nil, "term" => 120, "month" => 31 }.freeze # days back

      # students:: Array of Core::Student, as on the class list; names:: Array of String, what questions are about
      # cells:: Hash of [student id, name] to Core::Analysis::Mastery::Cell; line:: from which share on they have it
      Overview = Struct.new(:students, :names, :cells, :line, keyword_init: true) do
        def cell(student, name) = cells[[student.id, name]]

        # @return [Array<Core::Student>] who don't have it yet, those of whom too little was seen left out
        def without(name) = students.select { |student| cell(student, name)&.state == :not_yet }

        # How many have it.
        def having(name) = students.count { |student| cell(student, name)&.state == :has }
      end

      # @param line [Rational] from which share on they have it
      # @param period [String] one of PERIODS
      # @return [Overview]
      def call(account_id, class_id, line: Core::Analysis::Mastery::LINE, period: "all")
        students = Store::Students.new.of_class(class_id)
        by_name = evidence(account_id, class_id, students, PERIODS[period])
        cells = by_name.transform_values { |earned| Core::Analysis::Mastery.cell(earned, line: line) }
        Overview.new(students: students, names: by_name.keys.map(&:last).uniq.sort_by(&:downcase), cells: cells,
                     line: line).freeze
      end

      # A question by which somebody was seen, with the mark it earned.
      # title:: of the session; at:: epoch seconds
      Seen = Struct.new(:slide, :earned, :title, :session_id, :at, keyword_init: true)

      # @param cell [Core::Analysis::Mastery::Cell]
      # @return [Array<Seen>] the latest first
      def questions(cell)
        sessions = Store::Sessions.new
        rows = cell.earned.map(&:session_id).uniq.to_h { |id| [id, sessions.find(id)] }
        seen = cell.earned.map do |earned|
          row = rows.fetch(earned.session_id)
          Seen.new(slide: sessions.lesson_of(row).slide(earned.slide_id), earned: earned, title: row.title, session_id: row.id,
                   at: row.created_at.to_f).freeze
        end
        seen.select(&:slide).sort_by { |each| -each.at }
      end

      # How the class did on it, session by session.
      # @param overview [Overview]
      # @return [Array<Array(Store::Sessions::Row, Rational)>] the earliest first
      def over_sessions(overview, name)
        earned = overview.students.filter_map { |student| overview.cell(student, name) }.flat_map(&:earned)
        by_session = earned.group_by(&:session_id)
        rows = Store::PastSessions.new.by_id(by_session.keys)
        shares = by_session.map { |id, all| [rows.fetch(id), all.sum { |each| each.mark * each.weight } / all.sum(&:weight)] }
        shares.sort_by { |row, _| row.created_at }
      end

      private

      # What a question is about, and what that belongs to.
      def about(tags, above) = tags.flat_map { |name| [name, *above[name]] }.uniq

      # @return [Hash{Array(Integer, String)=>Array<Core::Analysis::Mastery::Earned>}] by student and what it is about
      def evidence(account_id, class_id, students, days)
        ended = Store::PastSessions.new.ended_of_class(account_id, class_id, SESSIONS, days: days).keys
        WriteEvidence.new.call(ended)
        above = Store::Standards.new.above(account_id)
        Store::Evidence.new.by_student(ended, students.map(&:id)).each_with_object({}) do |row, found|
          earned = Core::Analysis::Mastery::Earned.new(**row.except(:tags)).freeze
          about(row[:tags], above).each { |name| (found[[earned.student_id, name]] ||= []) << earned }
        end
      end
    end
  end
end
