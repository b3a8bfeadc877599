# frozen_string_literal: true

require "csv"

module Roost
  module Exchange
    # Everything about a session as CSV: one row a student and question, with the answer
    # as text. UTF-8 with a byte-order mark, so that spreadsheets read the letters right.
    class ResultsSheet
      COLUMNS = ["Session", "Class", "Date", "Student", "Question no.", "Question", "Kind", "Outcome", "Mark", "Points",
                 "Seconds", "Answer", "Unfinished", "Late"].freeze
      BYTE_ORDER_MARK = "\uFEFF"
      # A cell that begins so would be run as a formula.
      FORMULA = /\A[=+\-@\t\r]/
      NUMBER = /\A-\d+(?:[.,]\d+)*\z/

      # @param results [Core::Analysis::Results]
      # @param about [Hash] :class_name and :date as they stand in the rows
      def initialize(results, class_name: "", date: "")
        @results = results
        @about = [results.record.title, class_name, date]
      end

      # @return [String]
      def to_csv
        CSV.generate(+BYTE_ORDER_MARK) do |csv|
          csv << COLUMNS
          results.lines.each { |line| rows(line).each { |row| csv << row.map { |cell| safe(cell) } } }
        end
      end

      private

      attr_reader :results

      def rows(line)
        results.slides.map do |slide|
          outcome = line.outcomes[slide.id]
          [*@about, line.seat.name, results.number(slide), slide.name, slide.prompt.label,
           outcome.status.to_s.tr("_", " "), outcome.mark&.to_f&.round(4), outcome.points, outcome.seconds&.round(1),
           answer(outcome, slide.prompt), yes(outcome.unfinished), late(outcome.answer)]
        end
      end

      def answer(outcome, prompt)
        return nil unless outcome.answer

        outcome.answer.readable? ? prompt.plain(outcome.answer.value) : outcome.answer.typed_text
      end

      def late(answer) = answer&.by_line ? "by the line, counts" : yes(answer&.late)

      def yes(flag) = flag ? "yes" : nil

      def safe(cell) = cell.is_a?(String) && cell.match?(FORMULA) && !cell.match?(NUMBER) ? "'#{cell}" : cell
    end
  end
end
