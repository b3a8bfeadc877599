# frozen_string_literal: true

require "csv"
require "roo"
require "zip"

module Roost
  module Exchange
    # Rows of text out of a sheet from outside: CSV with comma, semicolon or tab, in UTF-8
    # or Windows-1252, or XLSX. Limited in size before anything is unpacked.
    class Table
      MOST_BYTES = 10 * 1024 * 1024
      MOST_UNPACKED = 60 * 1024 * 1024
      MOST_PARTS = 500
      SEPARATORS = [",", ";", "\t"].freeze
      UNREADABLE = "could not be read as a sheet. Save it as CSV or XLSX and retry."
      UNWORKED = "has formulas that were never worked out. Open it, save it, and retry."
      # Roo knows of a formula only where its value stands beside it.
      FORMULA_WITHOUT_VALUE = %r{<f[^>]*>[^<]*</f>\s*(?:<v\s*/>|<v></v>)?\s*</c>}
      BLOATED = "unpacks to far more than a sheet of questions can hold. Save it again as CSV."

      # A cell whose value is worked out by a formula, of which we know only that.
      FORMULA = Object.new.freeze

      # @param path [String]
      # @param most [Integer] rows beyond this many are not read
      # @return [Core::Reading] of Array of rows, each an Array of String or FORMULA; refused in
      #   words that go on after the file's name
      def self.read(path, most:)
        return Core::Reading.refused("is larger than 10 MB.") if File.size(path) > MOST_BYTES

        File.binread(path, 4) == "PK\x03\x04".b ? read_xlsx(path, most) : read_csv(File.binread(path), most)
      end

      def self.read_csv(bytes, most)
        text = decoded(bytes)
        return Core::Reading.refused(UNREADABLE) if text.nil?

        first = text.lines.first.to_s
        separator = SEPARATORS.max_by { |each| first.count(each) }
        rows = []
        CSV.new(text, col_sep: separator, liberal_parsing: true).each do |row|
          rows << row.map { |cell| from_csv(cell) }
          break if rows.length > most
        end
        Core::Reading.ok(rows)
      rescue CSV::MalformedCSVError
        Core::Reading.refused(UNREADABLE)
      end

      # UTF-8 where it is that, else Windows-1252; nil where it is no text at all.
      def self.decoded(bytes)
        text = bytes.dup.force_encoding(Encoding::UTF_8).delete_prefix("\uFEFF")
        unless text.valid_encoding?
          text = bytes.dup.force_encoding(Encoding::WINDOWS_1252).encode(Encoding::UTF_8, undef: :replace,
replace: "")
        end
        text.match?(/[\u0000-\u0008]/) ? nil : text.gsub(/\r\n?/, "\n")
      end

      # A cell that begins like a formula is one, unless a quote stands before it.
      def self.from_csv(cell)
        text = cell.to_s
        return FORMULA if text.match?(/\A=./)

        text.match?(/\A'[=+\-@\t]/) ? text[1..] : text
      end

      def self.read_xlsx(path, most)
        reason = Zip::File.open(path) { |zip| reason_against(zip) }
        return Core::Reading.refused(reason) if reason

        book = Roo::Excelx.new(path, file_warning: :ignore, disable_html_wrapper: true)
        rows = []
        book.each_row_streaming(pad_cells: true, max_rows: most + 1) { |row| rows << row.map { |cell| from_xlsx(cell) } }
        Core::Reading.ok(rows)
      rescue Zip::Error, Nokogiri::XML::SyntaxError, ArgumentError, IOError, NoMethodError, TypeError, KeyError
        # Roo trusts what is inside to be a workbook, and falls over in all these ways when it isn't.
        Core::Reading.refused(UNREADABLE)
      ensure
        book&.close
      end

      # What the parts say of their size is checked again while they are unpacked.
      def self.reason_against(zip)
        Zip.validate_entry_sizes = true
        sizes = zip.map(&:size)
        return BLOATED if sizes.length > MOST_PARTS || sizes.sum > MOST_UNPACKED

        pages = zip.glob("xl/worksheets/*.xml")
        UNWORKED if pages.any? { |page| page.get_input_stream.read.match?(FORMULA_WITHOUT_VALUE) }
      end

      def self.from_xlsx(cell)
        return FORMULA if cell.respond_to?(:formula) && cell.formula
        return "" if cell.nil? || cell.value.nil?

        value = cell.value
        value.is_a?(Float) && value == value.round ? value.round.to_s : value.to_s
      end
      private_class_method :read_csv, :decoded, :from_csv, :read_xlsx, :reason_against, :from_xlsx
    end
  end
end
