# frozen_string_literal: true

require "roo"
require "zip"
require_relative "shown"

module Roost
  module Exchange
    class Table
      # An XLSX workbook from outside, as rows of the sheet in which a heading stands: with their own
      # numbers, merged cells filled in, and nil for a formula whose value isn't there.
      class Workbook
        MOST_UNPACKED = 60 * 1024 * 1024
        MOST_PARTS = 500
        MOST_SHEETS = 30
        MOST_MERGED = 2_000
        BLOATED = "unpacks to far more than a sheet of questions can hold. Save it again as CSV."
        # Roo knows of a formula only where its value stands beside it.
        UNWORKED = %r{<c [^<>]*?\br="([A-Z]{1,3})(\d{1,7})"[^<>]*>\s*<f(?:/>|[^<>]*>[^<]*</f>)\s*(?:<v\s*/>|<v></v>)?\s*</c>}
        # A value that is none: Roo would take the whole workbook for unreadable.
        EMPTY = %r{<v\s*/>|<v>\s*</v>}
        LATE_EPOCH = /<workbookPr\b[^>]*\bdate1904="(?:1|true)"/
        MERGED = /<mergeCell ref="([A-Z]{1,3})(\d{1,7}):([A-Z]{1,3})(\d{1,7})"/

        # @param path [String]
        # @yieldparam reason [String] why it is not read; the block raises
        def initialize(path, &refuse)
          @path = path
          @refuse = refuse
          Zip.validate_entry_sizes = true
          Zip::File.open(path) { |zip| look(zip) }
          @book = Roo::Excelx.new(path, file_warning: :ignore, disable_html_wrapper: true)
          @book.sheet_files.each { |file| without_empty_values(file) }
        end

        def close = @book&.close

        # @param headings [Array<String>] one stands in a cell of the first row
        # @param within [Integer] how far down it is looked for
        # @param most [Integer] rows that are read
        # @return [Array<Array(Integer, Array<String, nil>)>] numbers and cells, from the heading's row on;
        #   the first sheet from its top where there is none
        def rows(headings, within:, most:)
          sheets = @book.sheets.first(MOST_SHEETS)
          found = sheets.find { |name| plain_rows(name, within).any? { |_, cells| Reader.headed?(cells, headings) } }
          rows = filled(found || sheets.first, most + within)
          found ? rows.drop_while { |_, cells| !Reader.headed?(cells, headings) } : rows
        end

        private

        # What the parts say of their size is checked again while they are unpacked.
        def look(zip)
          sizes = zip.map(&:size)
          @refuse.call(BLOATED) if sizes.length > MOST_PARTS || sizes.sum > MOST_UNPACKED
          @shown = Shown.new(late_epoch: zip.find_entry("xl/workbook.xml")&.get_input_stream&.read.to_s.match?(LATE_EPOCH))
        end

        # A formula without its value is known by that (UNWORKED), so it keeps it.
        def without_empty_values(file)
          xml = File.binread(file)
          return unless xml.match?(EMPTY)

          File.binwrite(file, xml.gsub(%r{(<c\b[^>]*>)\s*(?:<v\s*/>|<v>\s*</v>)\s*</c>}, '\1</c>'))
        end

        def filled(name, most)
          rows = plain_rows(name, most).to_h
          xml = page(name)
          xml.scan(UNWORKED) { |letters, number| put(rows, number.to_i, column(letters), nil) if rows.key?(number.to_i) }
          xml.scan(MERGED).first(MOST_MERGED).each { |corners| merge(rows, *corners) }
          rows.map { |number, cells| [number, cells.each_index.map { |place| cells[place] }] }
        end

        def put(rows, number, place, value)
          cells = rows[number]
          cells << "" while cells.length < place
          cells[place] = value
        end

        # What stands in the first of merged cells stands in all of them.
        def merge(rows, left, top, right, bottom)
          value = rows.dig(top.to_i, column(left))
          return if value.to_s.empty?

          rows.each_key do |number|
            next unless number.between?(top.to_i, bottom.to_i)

            (column(left)..[column(right), column(left) + 50].min).each do |place|
              put(rows, number, place, value) if rows[number][place].to_s.empty? && number > top.to_i
            end
          end
        end

        def column(letters) = letters.each_char.reduce(0) { |sum, letter| (sum * 26) + letter.ord - "A".ord + 1 } - 1

        # @return [Array<Array(Integer, Array<String>)>]
        def plain_rows(name, most)
          @book.each_row_streaming(sheet: name, max_rows: most).filter_map do |row|
            next if row.empty?

            cells = row.each_with_object([]) do |cell, all|
              place = cell.coordinate.column - 1
              all << "" while all.length < place
              all[place] = cell.value.nil? ? "" : @shown.of(cell)
            end
            [row.first.coordinate.row, cells]
          end
        end

        def page(name) = File.binread(@book.sheet_files[@book.sheets.index(name)]).force_encoding("UTF-8").scrub
      end
    end
  end
end
