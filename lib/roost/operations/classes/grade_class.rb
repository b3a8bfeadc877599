# frozen_string_literal: true

module Roost
  module Operations
    # The gradebook of a class: what its teacher gave it that has ended, by the evidence of that.
    class GradeClass
      MOST = 120 # columns, the latest
      DROPS = (0..5)

      # @param drop [Integer] so many of each student's lowest don't count
      # @return [Core::Analysis::Gradebook]
      def call(account_id, class_id, drop: 0)
        ended = Store::PastSessions.new.ended_of_class(account_id, class_id, MOST)
        WriteEvidence.new.call(ended.keys)
        students = Store::Students.new.of_class(class_id)
        results = Store::Evidence.new.class_results(ended.keys, students.map(&:id))
        entries = results.to_h { |row| [row.values_at(:student_id, :session_id), entry(row)] }
        columns = columns(ended).select { |column| results.any? { |row| row[:session_id] == column.id && told?(row) } }
        Core::Analysis::Gradebook.new(students: students, columns: columns, entries: entries, drop: drop)
      end

      private

      def told?(row) = row[:marked].positive? || row[:waiting].positive?

      def entry(row)
        Core::Analysis::Gradebook::Entry.new(**row.slice(:share, :right, :marked, :points, :waiting)).freeze
      end

      def columns(ended)
        found = Store::PastSessions.new.by_id(ended.keys)
        columns = found.values.map do |row|
          Core::Analysis::Gradebook::Column.new(id: row.id, title: row.title, kind: row.self_paced ? :assignment : :lesson,
                                                at: ended.fetch(row.id)).freeze
        end
        columns.sort_by { |column| [column.at, column.id] }
      end
    end
  end
end
