# frozen_string_literal: true

require "caxlsx"

module Roost
  module Exchange
    # Questions as a sheet, and back. The pattern is our own: one row a question, columns by
    # name in any order (QuestionRow::EXPLAINED).
    class QuestionSheet
      MOST_ROWS = 500
      COMMENT = "#"
      # A quote before a formula in a workbook, where a text is a text, but a quote might be taken for ours.
      ALREADY = /\A'+[=+\-@\t]/
      # A question that begins like a comment has a quote before it.
      COMMENTED = /\A'*#/
      UNCOMMENTED = /\A'(?='*#)/

      # What was found in one row.
      #
      # number:: of the row in the sheet, from 1
      # slide::  Core::Slide, nil when the row can't be used
      # reason:: why not, nil when it can
      # formats:: as Table::Row has them
      Row = Struct.new(:number, :question, :slide, :reason, :formats, keyword_init: true)
      # rows:: [Row]; unknown:: names of columns that aren't in the pattern
      Found = Struct.new(:rows, :unknown, keyword_init: true) do
        def usable = rows.filter_map(&:slide)
      end

      # @param media [#call] file name to whether it is kept here
      def initialize(media)
        @row = QuestionRow.new(media)
      end

      # @param path [String] of a file from outside
      # @param mark [String] begins the ids of the new slides
      # @return [Core::Reading] of Found; refused in words that go on after the file's name
      def read(path, mark:)
        Table.read(path, headings: ["Question"], most: MOST_ROWS + 3).and_then do |first, *rest|
          header = first ? first.cells : []
          columns = header.map { |cell| column(cell) }
          next Core::Reading.refused("has no column “Question”. Begin with the template.") unless columns.include?("Question")

          found = found(columns, rest, mark)
          next Core::Reading.refused("has no questions below its first row.") if found.empty?
          next Core::Reading.refused("has more than #{MOST_ROWS} questions. Split it.") if found.length > MOST_ROWS

          unknown = header.map(&:to_s).reject { |cell| cell.strip.empty? || column(cell) }
          Core::Reading.ok(Found.new(rows: found, unknown: unknown).freeze)
        end
      end

      # @param slides [Array<Core::Slide>] those without a question are left out
      # @return [String] CSV with a byte-order mark
      def csv(slides) = CsvText.of(table(slides))

      # @return [String] bytes of an XLSX workbook
      def xlsx(slides) = to_xlsx(table(slides))

      def pattern_csv = CsvText.of(pattern)

      def pattern_xlsx = to_xlsx(pattern)

      private

      def column(cell) = cell.is_a?(String) ? columns_by_name[cell.strip.downcase] : nil

      def columns_by_name
        @columns_by_name ||= (QuestionRow::EXPLAINED.keys | QuestionRow::OPTIONS).to_h { |name| [name.downcase, name] }
      end

      def found(columns, rows, mark)
        rows.filter_map do |row|
          cells = columns.zip(row.cells).reject { |name, _| name.nil? }.to_h.transform_values { |cell| cell || "" }
          question = cells["Question"]
          next if cells.values.all? { |cell| cell == "" } || (question.is_a?(String) && question.start_with?(COMMENT))

          cells["Question"] = question.sub(UNCOMMENTED, "") if question.is_a?(String)
          row(cells, row, "#{mark}r#{row.number}")
        end
      end

      def row(cells, row, id)
        question = cells["Question"].is_a?(String) ? cells["Question"] : ""
        formula = cells.key(Table::FORMULA)
        worked = "there is a formula in “#{formula}”; put its value there"
        reading = formula ? Core::Reading.refused(worked) : @row.slide(cells, id)
        Row.new(number: row.number, question: question, slide: reading.value, reason: reading.reason, formats: row.formats).freeze
      end

      def table(slides)
        rows = slides.select(&:prompt).map do |slide|
          cells = @row.cells(slide)
          cells.merge("Question" => CsvText.quoted(cells["Question"], COMMENTED))
        end
        options = QuestionRow::OPTIONS.select.with_index { |name, place| place < 6 || rows.any? { |row| row[name] } }
        names = QuestionRow::EXPLAINED.keys.flat_map { |name| name == "Option A" ? options : name }.uniq
        [names, *rows.map { |row| row.values_at(*names).map(&:to_s) }]
      end

      def pattern
        names = QuestionRow::EXPLAINED.keys
        first, *rest = QuestionRow::EXPLAINED.values
        kind = Core::Kinds.all.first.kind
        example = { "Kind" => kind, **Kinds.sheet_row(kind)::EXAMPLE }
        example["Question"] = "#{COMMENT} For example: #{example["Question"]}"
        [names, ["#{COMMENT} #{first}", *rest], example.values_at(*names).map(&:to_s)]
      end

      def to_xlsx(table)
        package = Axlsx::Package.new
        package.workbook.add_worksheet(name: "Questions") do |sheet|
          bold = sheet.styles.add_style(b: true)
          wrap = sheet.styles.add_style(alignment: { wrap_text: true, vertical: :top })
          table.each_with_index do |row, place|
            cells = row.map { |cell| CsvText.quoted(cell, ALREADY) }
            sheet.add_row(cells, types: [:string] * row.length, escape_formulas: true, style: place.zero? ? bold : wrap)
          end
          sheet.column_widths(*table.first.map { |name| name == "Question" ? 44 : 18 })
          sheet.sheet_view.pane do |pane|
            pane.state = :frozen
            pane.y_split = 1
            pane.top_left_cell = "A2"
          end
        end
        package.to_stream.read
      end
    end
  end
end
