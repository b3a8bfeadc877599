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

      # What a student, a question and an answer say is put into words once, and stands in many rows.
      # @return [String]
      def to_csv
        sheet = CsvText.of([COLUMNS])
        results.lines.each { |line| rows(line) { |parts| sheet << parts.join(",") << "\n" } }
        absent.each { |cells| sheet << CsvText.line(cells) << "\n" }
        sheet
      end

      private

      attr_reader :results

      def absent
        results.record.missing.map { |student| [*@about, student.name, student.number, nil, nil, nil, nil, "absent"] }
      end

      def numbers = @numbers ||= results.record.roll.to_h { |student| [student.id, student.number] }

      # @yieldparam parts [Array<String>] of a row, each some cells
      def rows(line)
        who = CsvText.line([*@about, line.seat.name, numbers[line.seat.student_id], line.seat.extra])
        practice = CsvText.line([yes(line.seat.practice)])
        results.slides.each do |slide|
          outcome = line.outcomes[slide.id]
          comment = @comments[[line.seat.id, slide.id]]
          yield [who, question(slide), figures(outcome), answer(outcome, slide.prompt), flags(outcome),
                 comment ? CsvText.line([comment]) : "", practice]
        end
      end

      def question(slide)
        (@questions ||= {})[slide.id] ||= CsvText.line([results.number(slide), slide.name, slide.prompt.label])
      end

      # Numbers and our own words, in which nothing has to be quoted.
      def figures(outcome)
        "#{outcome.status.to_s.tr("_", " ")},#{outcome.mark&.to_f&.round(4)},#{outcome.points},#{outcome.seconds&.to_f&.round(1)}"
      end

      def answer(outcome, prompt)
        return "" unless outcome.answer
        return CsvText.line([outcome.answer.typed_text]) unless outcome.answer.readable?

        ((@answers ||= {})[prompt.id] ||= {}.compare_by_identity)[outcome.answer.value] ||=
          CsvText.line([prompt.plain(outcome.answer.value)])
      end

      def flags(outcome) = "#{yes(outcome.unfinished)},#{late_words(outcome.answer)}"

      def late_words(answer) = (words = late(answer)).to_s.include?(",") ? %("#{words}") : words

      def late(answer)
        return "by the line, counts" if answer&.by_line

        answer&.let_count ? "yes, counted" : yes(answer&.late)
      end

      def yes(flag) = flag ? "yes" : nil
    end
  end
end
