# frozen_string_literal: true

module Roost
  module Exchange
    # A gradebook as a sheet: a row each student, a column each lesson or assignment, and all of it together.
    class GradeSheet
      NOT_THERE = "absent"
      WAITING = "to be marked"

      # @param book [Core::Analysis::Gradebook]
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
          [student.full_name, student.number, *@book.columns.map { |column| cell(@book.entry(student.id, column)) },
           @plain.call(@book.total(student.id))]
        end
        CsvText.of([["Student", "Number", *heads, "All"], *lines])
      end

      private

      def cell(entry)
        return NOT_THERE unless entry

        [@plain.call(entry), (WAITING if entry.waiting.positive?)].compact.reject(&:empty?).join(", ")
      end
    end
  end
end
