# frozen_string_literal: true

module Roost
  module Operations
    # The gradebook of a class: what its teacher gave it that has ended, by the evidence of that, and the columns of her own.
    class GradeClass
      MOST = 120 # sessions, the latest
      Gradebook = Core::Grading::Gradebook

      # @return [Core::Grading::Gradebook]
      def call(account_id, class_id)
        ended = Store::PastSessions.new.ended_of_class(account_id, class_id, MOST)
        WriteEvidence.new.call(ended.keys)
        students = Store::Students.new.of_class(class_id)
        said = books.columns(account_id, class_id)
        earned = earned(ended.keys, students)
        rules = books.rules(account_id, class_id)
        asked = rules.of_all || said.any?(&:absent_zero) ? Store::Evidence.new.asked(ended.keys) : {}
        columns = of_sessions(ended, earned, said, asked) + said.reject(&:session_id).map { |each| own(each) }
        Gradebook.new(students: students, columns: columns.sort_by { |column| [column.at, column.id] },
                      entries: earned.merge(typed(said)), rules: rules, since: since(class_id))
      end

      # @param column [Store::Gradebooks::Column, nil] of a session, where something was said of it
      # @return [String] by which a column is known in the book
      def self.key(column) = column.session_id ? "s#{column.session_id}" : "c#{column.id}"

      private

      def books = @books ||= Store::Gradebooks.new

      # When each came into the class, from the morning of that day.
      def since(class_id)
        time = SchoolClock.here
        Store::Students.new.since(class_id).transform_values { |day| time.read("#{day}T00:00").value || 0.0 }
      end

      # @return [Hash{Array(Integer, String)=>Gradebook::Entry}]
      def earned(session_ids, students)
        Store::Evidence.new.class_results(session_ids, students.map(&:id)).to_h do |row|
          about = row.slice(:share, :right, :marked, :points, :waiting, :late)
          [[row[:student_id], "s#{row[:session_id]}"], Gradebook::Entry.new(**about, excused: false).freeze]
        end
      end

      # What was typed, and who is excused.
      def typed(said)
        by_id = said.to_h { |column| [column.id, column] }
        books.entries(by_id.keys).to_h do |(column_id, student_id), entry|
          column = by_id[column_id]
          [[student_id, GradeClass.key(column)], entry.excused ? Gradebook::Entry::EXCUSED : points(entry, column)]
        end
      end

      def points(entry, column)
        Gradebook::Entry.new(share: entry.points / column.possible, right: entry.points, marked: column.possible,
                             points: entry.points, waiting: 0, late: 0, excused: false).freeze
      end

      # Those in which there is something to tell.
      # @param asked [Hash{Integer=>Integer}] how many questions each had, where that is needed
      def of_sessions(ended, earned, said, asked)
        told = earned.filter_map { |(_, key), entry| key if entry.marked.positive? || entry.waiting.positive? }.uniq
        about = said.select(&:session_id).to_h { |column| [column.session_id, column] }
        rows = Store::PastSessions.new.by_id(ended.keys).values.select { |row| told.include?("s#{row.id}") }
        rows.map do |row|
          Gradebook::Column.new(id: "s#{row.id}", session_id: row.id, title: row.title, at: ended.fetch(row.id),
                                kind: row.self_paced ? :assignment : :lesson, asked: asked.fetch(row.id, 0),
                                **place(about[row.id])).freeze
        end
      end

      def own(column)
        at = SchoolClock.here.read("#{column.on_date}T12:00").value
        Gradebook::Column.new(id: "c#{column.id}", title: column.title, kind: :own, at: at, possible: column.possible,
                              **place(column)).freeze
      end

      # Where a column belongs, and what it counts.
      def place(said) = { category_id: said&.category_id, weight: said&.weight || 1r, absent_zero: said&.absent_zero || false }
    end
  end
end
