# frozen_string_literal: true

require "csv"
require "roo"
require "zip"

module Roost
  module Exchange
    class Table
      # Reads a sheet in a process of its own (bin/read): CSV with comma, semicolon or tab, in
      # UTF-8 or Windows-1252, or XLSX. Loads nothing else of the program. What can't be read is
      # Unreadable.
      module Reader
        MOST_CELLS = 20_000
        # Commas in all, in cells too: more than that isn't looked at.
        MOST_SEPARATORS = 200_000
        MOST_UNPACKED = 60 * 1024 * 1024
        MOST_PARTS = 500
        SEPARATORS = [",", ";", "\t"].freeze
        CROWDED = "has more than 20 000 cells. Split it."
        UNREADABLE = "could not be read as a sheet. Save it as CSV or XLSX and retry."
        UNWORKED = "has formulas that were never worked out. Open it, save it, and retry."
        # A quote stands before what would be run as a formula by the program that opens the sheet.
        QUOTED = /\A'(?='*[=+\-@\t])/
        # Roo knows of a formula only where its value stands beside it.
        FORMULA_WITHOUT_VALUE = %r{<f[^<>]*>[^<]*</f>\s*(?:<v\s*/>|<v></v>)?\s*</c>}
        BLOATED = "unpacks to far more than a sheet of questions can hold. Save it again as CSV."

        # @param most [Integer] rows beyond this many are not read
        # @return [Array<Array<String, nil>>] nil for a cell that is worked out by a formula
        def self.read(path, most)
          File.binread(path, 4) == "PK\x03\x04".b ? xlsx(path, most) : csv(File.binread(path), most)
        end

        def self.csv(bytes, most)
          text = decoded(bytes)
          refuse(UNREADABLE) if text.nil?
          first = text.each_line.first.to_s
          separator = SEPARATORS.max_by { |each| first.count(each) }
          refuse(CROWDED) if text.count(separator) > MOST_SEPARATORS

          limited(CSV.new(text, col_sep: separator, liberal_parsing: true).each.lazy, most) { |cell| from_csv(cell) }
        rescue CSV::MalformedCSVError
          refuse(UNREADABLE)
        end

        # UTF-8 where it is that, else Windows-1252; nil where it is no text at all.
        def self.decoded(bytes)
          text = bytes.dup.force_encoding(Encoding::UTF_8).delete_prefix("\uFEFF")
          unless text.valid_encoding?
            text = bytes.dup.force_encoding(Encoding::WINDOWS_1252).encode(Encoding::UTF_8, undef: :replace, replace: "")
          end
          text.match?(/[\u0000-\u0008]/) ? nil : text.gsub(/\r\n?/, "\n")
        end

        # A cell that begins like a formula is one, unless a quote stands before it, or room after
        # the sign ("= frogs" is an item too many).
        def self.from_csv(cell)
          text = cell.to_s
          text.match?(/\A=\S/) ? nil : text.sub(QUOTED, "")
        end

        def self.xlsx(path, most)
          reason = Zip::File.open(path) { |zip| reason_against(zip) }
          refuse(reason) if reason

          book = Roo::Excelx.new(path, file_warning: :ignore, disable_html_wrapper: true)
          limited(book.each_row_streaming(pad_cells: true, max_rows: most + 1), most) { |cell| from_xlsx(cell) }
        rescue Zip::Error, Nokogiri::XML::SyntaxError, ArgumentError, IOError, NoMethodError, TypeError, KeyError
          # Roo trusts what is inside to be a workbook, and falls over in all these ways when it isn't.
          refuse(UNREADABLE)
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
          return nil if cell.respond_to?(:formula) && cell.formula
          return "" if cell.nil? || cell.value.nil?

          value = cell.value
          value.is_a?(Float) && value == value.round ? value.round.to_s : value.to_s
        end

        # @yieldparam cell one of them
        # @return [Array<Array>] the rows as far as they are wanted
        def self.limited(rows, most, &block)
          cells = 0
          rows.first(most + 1).map do |row|
            cells += row.length
            refuse(CROWDED) if cells > MOST_CELLS
            row.map(&block)
          end
        end

        def self.refuse(reason) = raise(Unreadable, reason)
        private_class_method :csv, :decoded, :from_csv, :xlsx, :reason_against, :from_xlsx, :limited, :refuse
      end
    end
  end
end
