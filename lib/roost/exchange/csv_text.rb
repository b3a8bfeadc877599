# frozen_string_literal: true

require "csv"

module Roost
  module Exchange
    # Rows as CSV: UTF-8 with a byte-order mark, so that spreadsheets read the letters right, and no cell
    # that a spreadsheet would run.
    module CsvText
      BYTE_ORDER_MARK = "\uFEFF"
      # A cell that begins so would be run as a formula by the program that opens it, or be left out.
      FORMULA = /\A'*[=+\-@\t\r]/
      QUOTED = /\A'(?='*[=+\-@\t\r])/
      NUMBER = /\A-\d+(?:[.,]\d+)*\z/

      # @param rows [Enumerable<Array>]
      # @return [String]
      def self.of(rows)
        CSV.generate(+BYTE_ORDER_MARK) { |csv| rows.each { |row| csv << row.map { |cell| quoted(cell) } } }
      end

      # @param cells [Array]
      # @return [String] of a row or some of its cells, without an end
      def self.line(cells) = CSV.generate_line(cells.map { |cell| quoted(cell) }, row_sep: "")

      # A quote before what would be taken for something else.
      def self.quoted(cell, pattern = FORMULA)
        cell.is_a?(String) && cell.match?(pattern) && !cell.match?(NUMBER) ? "'#{cell}" : cell
      end

      # The same without that quote, as whoever reads a sheet takes it.
      # @param cell [String, nil]
      def self.unquoted(cell) = cell&.sub(QUOTED, "")
    end
  end
end
