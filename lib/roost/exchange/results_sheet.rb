# frozen_string_literal: true

module Roost
  module Exchange
    # Everything about a session as CSV: one row a student and question, with the answer as text, and one
    # for whoever of the class was not there.
    class ResultsSheet
      COLUMNS = ["Session", "Class", "Date", "Student", "Number", "Besides the name", "Question no.", "Question",
                 "Kind", "Outcome", "Mark", "Points", "Seconds", "Answer", "Unfinished", "Late", "Comment",
                 "Practice"].freeze

      # @param results [Core::Analysis::Results]
      # @param about [Hash] :class_name and :date as they stand in the rows
      # @param comments [Hash{Array(Integer, String)=>String}] seat and slide to what the teacher wrote to the student
      def initialize(results, class_name: "", date: "", comments: {})
        @results = results
        @comments = comments
        @about = [results.record.title, class_name, date]
      end

      # @return [String]
      def to_csv
        CsvText.of([COLUMNS, *results.lines.flat_map { |line| rows(line) }, *absent])
      end

      private

      attr_reader :results

      def absent
        results.record.missing.map { |student| [*@about, student.name, student.number, nil, nil, nil, nil, "absent"] }
      end

      def number(seat) = results.record.roll.find { |student| student.id == seat.student_id }&.number

      def rows(line)
        results.slides.map do |slide|
          outcome = line.outcomes[slide.id]
          [*@about, line.seat.name, number(line.seat), line.seat.extra, results.number(slide), slide.name, slide.prompt.label,
           outcome.status.to_s.tr("_", " "), outcome.mark&.to_f&.round(4), outcome.points, outcome.seconds&.round(1),
           answer(outcome, slide.prompt), yes(outcome.unfinished), late(outcome.answer), @comments[[line.seat.id, slide.id]],
           yes(line.seat.practice)]
        end
      end

      def answer(outcome, prompt)
        return nil unless outcome.answer

        outcome.answer.readable? ? prompt.plain(outcome.answer.value) : outcome.answer.typed_text
      end

      def late(answer)
        return "by the line, counts" if answer&.by_line

        answer&.let_count ? "yes, counted" : yes(answer&.late)
      end

      def yes(flag) = flag ? "yes" : nil
    end
  end
end
