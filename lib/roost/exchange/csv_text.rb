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
      NUMBER = /\A-\d+(?:[.,]\d+)*\z/

      # @param rows [Enumerable<Array>]
      # @return [String]
      def self.of(rows)
        CSV.generate(+BYTE_ORDER_MARK) { |csv| rows.each { |row| csv << row.map { |cell| quoted(cell) } } }
      end

      # A quote before what would be taken for something else; Table::Reader takes it away again.
      def self.quoted(cell, pattern = FORMULA)
        cell.is_a?(String) && cell.match?(pattern) && !cell.match?(NUMBER) ? "'#{cell}" : cell
      end
    end
  end
end
