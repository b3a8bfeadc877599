# frozen_string_literal: true

module Roost
  module Exchange
    # A gradebook as a sheet: a row each student, a column each lesson or assignment, and all of it together.
    class GradeSheet
      NOT_THERE = "absent"
      EXCUSED = "excused"
      LATE = "late answers"
      WAITING = "to be marked"

      # @param book [Core::Grading::Gradebook]
      # @param plain [#call] gives what stands in a cell
      # @param date [#call] gives a time as a day
      def initialize(book, plain, date:)
        @book = book
        @plain = plain
        @date = date
      end

      # @return [String]
      def to_csv
        heads = @book.columns.map { |column| "#{column.title} (#{@date.call(column.at)})" }
        lines = @book.students.map do |student|
          [student.full_name, student.number, *@book.columns.map { |column| cell(student, column) },
           @plain.call(@book.total(student.id))]
        end
        CsvText.of([["Student", "Number", *heads, "All"], *lines])
      end

      private

      def cell(student, column)
        entry = @book.entry(student.id, column)
        return column.own? ? "" : NOT_THERE unless entry
        return EXCUSED if entry.excused

        [@plain.call(entry), (NOT_THERE if entry.absent), (LATE if entry.late.positive?),
         (WAITING if entry.waiting.positive?)].compact.reject(&:empty?).join(", ")
      end
    end
  end
end
