# frozen_string_literal: true

require "csv"
require_relative "../csv_text"

module Roost
  module Exchange
    class Table
      # Reads a sheet in a process of its own (bin/read): CSV with comma, semicolon or tab, in
      # UTF-8, UTF-16 or Windows-1252, or XLSX. Loads little else of the program. What can't be read is
      # Unreadable.
      module Reader
        MOST_CELLS = 20_000
        # Commas in all, in cells too: more than that isn't looked at.
        MOST_SEPARATORS = 200_000
        # Rows above the one with the heading: titles, dates, who made it.
        ABOVE = 20
        LOOKED_AT = 200_000 # characters, for the separator
        SEPARATORS = [",", ";", "\t"].freeze
        CROWDED = "has more than 20 000 cells. Split it."
        UNREADABLE = "could not be read as a sheet. Save it as CSV or XLSX and retry."
        LOCKED = "is locked with a password. Save a copy without one and add that."
        OLD = "is in the old format of workbooks. Save it as XLSX or CSV and retry."
        # How a file begins that is a compound document: a locked workbook, or one of an old format.
        COMPOUND = "\xD0\xCF\x11\xE0".b
        ENCRYPTED = "EncryptedPackage".encode("UTF-16LE").b
        # By which byte order mark a text begins.
        WIDE = { "\xFF\xFE".b => Encoding::UTF_16LE, "\xFE\xFF".b => Encoding::UTF_16BE }.freeze
        # Some programs say the separator in a line of its own.
        SAID = /\Asep=(?<separator>[,;\t])\n/i

        # @param most [Integer] rows beyond this many are not read
        # @param headings [Array<String>] one stands in the first row of what is read; rows above it are left out
        # @return [Array<Array(Integer, Array<String, nil>)>] the sheet's own number of each row that is not
        #   blank, its cells: nil for a formula of which the value isn't there; and the number formats in it that aren't
        #   understood
        def self.read(path, most, headings)
          start = File.binread(path, 4).to_s
          compound(path) if start == COMPOUND
          rows = start == "PK\x03\x04".b ? xlsx(path, most, headings) : csv(File.binread(path), most, headings)
          limited(rows, most)
        end

        def self.compound(path) = refuse(File.binread(path).include?(ENCRYPTED) ? LOCKED : OLD)

        def self.csv(bytes, most, headings)
          text = decoded(bytes)
          refuse(UNREADABLE) if text.nil?
          said = text.match(SAID)
          text = said.post_match if said
          separator = said ? said[:separator] : separator(text, headings)
          refuse(CROWDED) if text.count(separator) > MOST_SEPARATORS

          below(rows(text, separator, said ? 2 : 1), most, headings)
        rescue CSV::MalformedCSVError
          refuse(UNREADABLE)
        end

        # The one by which a row has a heading, else the one that gives most of the first rows the same number of columns, and
        # of those the one that gives most columns: the very first row may be a title, and sentences hold commas.
        def self.separator(text, headings)
          start = text[0, LOOKED_AT]
          SEPARATORS.max_by do |each|
            first = CSV.new(start, col_sep: each, liberal_parsing: true).first(ABOVE)
            headed = first.count { |cells| cells.length > 1 && Reader.headed?(cells, headings) }
            many, rows = first.map(&:length).tally.reject { |length,| length < 2 }.max_by { |length, times| [times, length] }
            [headed.clamp(0, 1), rows.to_i, many.to_i]
          rescue CSV::MalformedCSVError
            [0, 0, 0]
          end
        end

        def self.rows(text, separator, first)
          CSV.new(text, col_sep: separator, liberal_parsing: true).each.lazy.with_index(first)
             .map { |row, number| [number, row.map { |cell| from_csv(cell) }] }
             .reject { |_, cells| cells.all? { |cell| cell == "" } }
        end

        # From the row with the heading on; from the top where there is none.
        def self.below(rows, most, headings)
          found = rows.first(most + ABOVE + 1)
          at = found.first(ABOVE).index { |_, cells| Reader.headed?(cells, headings) }
          found.drop(at || 0)
        end

        # UTF-16 where it says so, UTF-8 where it is that, else Windows-1252; nil where it is no text at all.
        def self.decoded(bytes)
          wide = WIDE[bytes[0, 2]]
          text = wide ? broad(bytes[2..], wide) : narrow(bytes)
          text.match?(/[\u0000-\u0008]/) ? nil : text.gsub(/\r\n?/, "\n")
        end

        def self.broad(bytes, encoding)
          bytes.force_encoding(encoding).encode(Encoding::UTF_8, invalid: :replace, undef: :replace)
        end

        def self.narrow(bytes)
          text = bytes.dup.force_encoding(Encoding::UTF_8).delete_prefix("\uFEFF")
          return text if text.valid_encoding?

          bytes.dup.force_encoding(Encoding::WINDOWS_1252).encode(Encoding::UTF_8, undef: :replace, replace: "")
        end

        # A cell that begins like a formula is one, unless a quote stands before it, or room after
        # the sign.
        def self.from_csv(cell)
          text = cell.to_s
          text.match?(/\A=\S/) ? nil : CsvText.unquoted(text)
        end

        def self.xlsx(path, most, headings)
          require_relative "workbook" # what reads a workbook takes longer to load than a CSV to read
          book = Workbook.new(path) { |reason| refuse(reason) }
          filled = book.rows(headings, within: ABOVE, most: most).reject { |_, cells| cells.all? { |cell| cell == "" } }
          filled.map do |number, cells|
            [number, cells.map { |cell| CsvText.unquoted(cell) }, cells.grep(Shown::AsStored).map(&:format).uniq]
          end
        rescue Zip::Error, Nokogiri::XML::SyntaxError, ArgumentError, IOError, NoMethodError, TypeError, KeyError
          # Roo trusts what is inside to be a workbook, and falls over in all these ways when it isn't.
          refuse(UNREADABLE)
        ensure
          book&.close
        end

        # Whether a row has one of these headings.
        def self.headed?(cells, headings)
          cells.any? { |cell| headings.any? { |heading| cell.to_s.strip.casecmp?(heading) } }
        end

        # @return [Array<Array>] the rows as far as they are wanted
        def self.limited(rows, most)
          rows.first(most + 1).tap { |wanted| refuse(CROWDED) if wanted.sum { |_, cells| cells.length } > MOST_CELLS }
        end

        def self.refuse(reason) = raise(Unreadable, reason)
        private_class_method :compound, :csv, :separator, :rows, :below, :decoded, :broad, :narrow, :from_csv, :xlsx,
                             :limited, :refuse
      end
    end
  end
end
