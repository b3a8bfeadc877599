# frozen_string_literal: true

module Roost
  module Exchange
    # Everything about a session as CSV: one row a student and question, with the answer as text, and one
    # for whoever of the class was not there.
    class ResultsSheet
      COLUMNS = ["Session", "Class", "Date", "Student", "Number", "Besides the name", "Question no.", "Question",
                 "Kind", "Outcome", "Mark", "Points", "Seconds", "Answer", "Unfinished", "Late", "Comment",
                 "Practice", "Possible", "Right answer", "Tags", "Handed in"].freeze

      # @param results [Core::Analysis::Results]
      # @param class_name [String] as it stands in the rows
      # @param date [String] likewise
      # @param comments [Hash{Array(Integer, String)=>Core::Session::Comments}] by seat and slide
      def initialize(results, class_name: "", date: "", comments: {})
        @results = results
        @comments = comments
        @about = [results.record.title, class_name, date]
      end

      # What a student, a question and an outcome say is put into words once, and stands in many rows.
      # @return [String]
      def to_csv
        sheet = CsvText.of([COLUMNS])
        results.lines.each { |line| add(line, sheet) }
        absent.each { |cells| sheet << CsvText.line(cells) << "\n" }
        sheet
      end

      private

      attr_reader :results

      def add(line, sheet)
        seat = line.seat
        who = CsvText.line([*@about, seat.name, numbers[seat.student_id], seat.extra])
        practice = yes(seat.practice)
        results.slides.each do |slide|
          said = said(line.outcomes[slide.id], slide.prompt)
          sheet << who << "," << question(slide) << "," << said.figures << "," << seconds(slide, seat) << "," << said.answer <<
            "," << comment(slide, seat) << "," << practice.to_s << "," << key(slide) << "," << handed_in(slide, seat) << "\n"
        end
      end

      def seconds(slide, seat) = results.record.seconds(slide.id)[seat.id]&.round(1).to_s

      def comment(slide, seat)
        written = @comments[[seat.id, slide.id]]
        written ? CsvText.line([written.in_words(results.record.attempt(slide.id, seat.id))]) : ""
      end

      # Points possible, what is right, and what it is about.
      def key(slide)
        prompt = slide.prompt
        (@keys ||= {})[slide.id] ||= CsvText.line([(prompt.points if prompt.keyed?), prompt.right_in_words,
                                                   prompt.tags.join(", ")])
      end

      # When the answer that counts came, in UTC: each seat's own, also where many gave the same.
      def handed_in(slide, seat)
        at = results.record.all_answers(slide.id)[seat.id]&.received_at
        at ? (@times ||= {})[at.to_i] ||= Time.at(at).utc.strftime("%Y-%m-%dT%H:%M:%SZ") : ""
      end

      # The cells before and after the seconds.
      Said = Struct.new(:figures, :answer)
      private_constant :Said

      def said(outcome, prompt)
        (@said ||= {}.compare_by_identity)[outcome] ||= Said.new(figures(outcome), gave(outcome, prompt))
      end

      def absent
        results.record.missing.map { |student| [*@about, student.name, student.number, nil, nil, nil, nil, "absent"] }
      end

      def numbers = @numbers ||= results.record.roll.to_h { |student| [student.id, student.number] }

      def question(slide)
        (@questions ||= {})[slide.id] ||= CsvText.line([results.number(slide), slide.name, slide.prompt.label])
      end

      # Numbers and our own words, in which nothing has to be quoted.
      def figures(outcome)
        "#{outcome.status.to_s.tr("_", " ")},#{outcome.mark&.to_f&.round(4)},#{outcome.points}"
      end

      def gave(outcome, prompt)
        answer = outcome.answer
        text = (answer.readable? ? prompt.plain(answer.value) : answer.typed_text) if answer
        CsvText.line([text, yes(outcome.unfinished), late(answer)])
      end

      def late(answer)
        return "by the line, counts" if answer&.by_line

        answer&.let_count ? "yes, counted" : yes(answer&.late)
      end

      def yes(flag) = flag ? "yes" : nil
    end
  end
end
