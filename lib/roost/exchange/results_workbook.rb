# frozen_string_literal: true

require "axlsx"
require "date"

module Roost
  module Exchange
    # A session as a workbook, with a sheet for each reader: what stands where, the overview, every answer, marks as a grid, how
    # good questions were, what they are about, and what is right. Numbers are numbers, and what begins like a formula is text.
    class ResultsWorkbook
      GRID = 14 # characters that a column of the grid is wide
      SHEETS = { "About" => "what stands in the other sheets", "Overview" => "a row each student",
                 "Answers" => "a row each student and question", "Marks" => "students by questions, from 0 to 1",
                 "Questions" => "a row each question, with how good it was", "Standards" => "a row each standard or subtopic",
                 "Key" => "what is right" }.freeze
      LEGEND = {
        "Outcome" => "right, part, wrong, given (nothing marks it), to mark (by hand), blank (shown, no answer), not reached, " \
                     "late (came too late, not counted), set aside (counts for nobody), unread (no valid answer)",
        "Mark" => "from 0 (wrong) to 1 (right)", "Possible" => "points that a right answer earns",
        "Right" => "share of the questions that the student reached", "Facility" => "mean mark of those who reached it",
        "Discrimination" => "how well it tells strong and weak students apart, from -1 to 1; empty of too few students"
      }.freeze

      # @param results [Core::Analysis::Results]
      # @param day [Date] on which it was
      # @param comments [Hash{Array(Integer, String)=>Core::Session::Comments}] by seat and slide
      def initialize(results, class_name:, day:, comments: {})
        @results = results
        @class_name = class_name
        @day = day
        @comments = comments
      end

      # @yieldparam done [Integer] sheets that are made; parts [Integer] of how many
      # @return [String] the file
      def to_xlsx
        @package = Axlsx::Package.new
        @styles = styles
        SHEETS.each_key.with_index do |name, at|
          @package.workbook.add_worksheet(name: name) { |sheet| send(name.downcase, sheet) }
          yield at + 1, SHEETS.length if block_given?
        end
        @package.to_stream.read
      end

      private

      attr_reader :results

      def record = results.record

      def styles
        all = @package.workbook.styles
        { head: all.add_style(b: true, alignment: { wrap_text: true, vertical: :top }),
          wrap: all.add_style(alignment: { wrap_text: true, vertical: :top }), day: all.add_style(format_code: "yyyy-mm-dd"),
          share: all.add_style(format_code: "0%"), figure: all.add_style(format_code: "0.00") }
      end

      # @param columns [Hash{String=>Symbol}] heading to what stands below: :text, :wrap, :number, :figure, :share or :day
      def table(sheet, columns, rows, widths: nil)
        sheet.add_row(columns.keys, style: @styles[:head], types: [:string] * columns.length)
        style = columns.values.map { |kind| @styles[kind] }
        types = columns.values.map { |kind| { text: :string, wrap: :string, day: :date }.fetch(kind, :float) }
        rows.each do |row|
          cells = row.zip(types).map { |cell, type| cell(cell, type) }
          sheet.add_row(cells, style: style, types: types, escape_formulas: true)
        end
        sheet.column_widths(*(widths || columns.values.map { |kind| kind == :wrap ? 44 : 16 }))
        sheet.sheet_view.pane do |pane|
          pane.state = :frozen
          pane.y_split = 1
          pane.top_left_cell = "A2"
        end
      end

      def cell(value, type)
        return nil if value.nil?

        type == :float ? value.to_f.round(6) : value
      end

      def about(sheet)
        sheets = SHEETS.drop(1).map { |name, words| ["Sheet #{name}", words] }
        columns = LEGEND.map { |name, words| ["Column #{name}", words] }
        rows = [["Session", record.title], ["Class", @class_name], ["Date", @day.strftime("%Y-%m-%d")], *sheets, *columns]
        table(sheet, { "What" => :text, "Means" => :wrap }, rows, widths: [24, 90])
      end

      def overview(sheet)
        columns = { "Student" => :text, "Number" => :text, "Right" => :share, "Fully right" => :number, "Questions" => :number,
                    **(results.game? ? { "Points" => :number } : {}), "Came late by (min)" => :figure }
        rows = results.lines.map do |line|
          late = record.late(line.seat)
          [line.seat.name, number(line.seat), line.share, line.right, line.marked, *(results.game? ? [line.points] : []),
           late && (late / 60)]
        end
        absent = record.missing.map { |student| [student.full_name, student.number, *Array.new(columns.length - 2)] }
        table(sheet, columns, rows + absent)
      end

      def answers(sheet)
        columns = { "Student" => :text, "Number" => :text, "Question no." => :number, "Question" => :wrap, "Kind" => :text,
                    "Answer" => :wrap, "Right answer" => :wrap, "Outcome" => :text, "Mark" => :figure, "Points" => :number,
                    "Possible" => :number, "Seconds" => :figure, "Handed in" => :text, "Tags" => :wrap, "Comment" => :wrap }
        rows = results.lines.flat_map { |line| results.slides.map { |slide| answer(line, slide) } }
        table(sheet, columns, rows)
      end

      def answer(line, slide)
        outcome = line.outcomes[slide.id]
        seat = line.seat
        [seat.name, number(seat), *asked(slide), given(slide, outcome), right(slide), outcome.status.to_s.tr("_", " "),
         outcome.mark, outcome.points, possible(slide), seconds(slide)[seat.id], handed_in(slide, seat), tags(slide),
         comment(seat, slide)]
      end

      def asked(slide) = (@asked ||= {})[slide.id] ||= [results.number(slide), slide.name, slide.prompt.label]

      def given(slide, outcome)
        answer = outcome.answer
        return nil unless answer

        answer.readable? ? slide.prompt.plain(answer.value) : answer.typed_text
      end

      def right(slide) = (@right ||= {})[slide.id] ||= slide.prompt.right_in_words.to_s

      def possible(slide) = (slide.prompt.points if slide.prompt.keyed?)

      def seconds(slide) = (@seconds ||= {})[slide.id] ||= record.seconds(slide.id)

      # When the answer that counts came: each seat's own, also where many gave the same.
      def handed_in(slide, seat)
        at = record.all_answers(slide.id)[seat.id]&.received_at
        at && "#{Time.at(at).utc.strftime("%Y-%m-%d %H:%M:%S")} UTC"
      end

      def tags(slide) = (@tags ||= {})[slide.id] ||= slide.prompt.tags.join(", ")

      def comment(seat, slide)
        @comments[[seat.id, slide.id]]&.in_words(record.attempt(slide.id, seat.id))
      end

      def marks(sheet)
        asked = results.slides.to_h { |slide| ["#{results.number(slide)} #{slide.name}"[0, 80], :figure] }
        columns = { "Student" => :text, "Number" => :text, **asked, "Right" => :share }
        rows = results.lines.map do |line|
          [line.seat.name, number(line.seat), *results.slides.map { |slide| line.outcomes[slide.id].mark }, line.share]
        end
        table(sheet, columns, rows, widths: [16, 16, *([GRID] * results.slides.length), 10])
      end

      def questions(sheet)
        columns = { "No." => :number, "Question" => :wrap, "Kind" => :text, "Reached" => :number, "Answered" => :number,
                    "Facility" => :share, "Discrimination" => :figure, "Median seconds" => :figure, "Remarks" => :wrap,
                    "Tags" => :wrap }
        rows = results.questions.map do |question|
          item = results.items.of(question.slide)
          [*asked(question.slide), question.reached, question.answered, question.facility, item&.discrimination,
           results.median_seconds(question.slide), flags(item), tags(question.slide)]
        end
        table(sheet, columns, rows)
      end

      def flags(item)
        item && item.flags.map { |flag| Core::Analysis::Item::FLAGS.fetch(flag).first }.join(", ")
      end

      def standards(sheet)
        about = results.slides.select { |slide| slide.prompt.counts? }
        names = about.flat_map { |slide| slide.prompt.tags }.uniq.sort_by(&:downcase)
        rows = names.map do |name|
          slides = about.select { |slide| slide.prompt.tags.include?(name) }
          marks = slides.flat_map { |slide| results.outcomes(slide).values.filter_map(&:mark) }
          [name, slides.length, marks.length, (marks.sum / marks.length if marks.any?)]
        end
        table(sheet, { "Standard or subtopic" => :wrap, "Questions" => :number, "Marks" => :number, "Right" => :share }, rows)
      end

      def key(sheet)
        rows = results.slides.map { |slide| [*asked(slide), right(slide), possible(slide), slide.prompt.explanation] }
        columns = { "No." => :number, "Question" => :wrap, "Kind" => :text, "Right answer" => :wrap, "Points" => :number,
                    "Explanation" => :wrap }
        table(sheet, columns, rows)
      end

      def number(seat) = (@numbers ||= record.roll.to_h { |student| [student.id, student.number] })[seat.student_id]
    end
  end
end
