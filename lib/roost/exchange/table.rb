# frozen_string_literal: true

require "json"

module Roost
  module Exchange
    # Rows of text out of a sheet from outside, which is read in a process of its own with little
    # time and memory (table/reader.rb).
    class Table
      MOST_BYTES = 10 * 1024 * 1024
      SLOW = "is too much to be read. Save it as a plain CSV, or split it."

      # A cell that is worked out by a formula, of which we know only that.
      FORMULA = Object.new.freeze

      # number:: as the sheet itself counts its rows; cells:: Array of String or FORMULA
      # formats:: number formats in it that aren't understood: such a number stands as it is stored
      Row = Struct.new(:number, :cells, :formats, keyword_init: true)

      # @param path [String]
      # @param headings [Array<String>] one of them stands in the first row that is wanted
      # @param most [Integer] rows beyond this many are not read
      # @return [Core::Reading] of Array of Row, blank ones left out; refused in words that go on after
      #   the file's name
      def self.read(path, headings:, most:)
        return Core::Reading.refused("is larger than 10 MB.") if File.size(path) > MOST_BYTES

        done = Confined.read("sheet", path, most, *headings)
        return Core::Reading.refused(done.refusal || SLOW) unless done.success

        rows = JSON.parse(done.output.force_encoding(Encoding::UTF_8))
        Core::Reading.ok(rows.map do |number, cells, formats|
          Row.new(number: number, cells: cells.map { |cell| cell || FORMULA }, formats: formats.to_a).freeze
        end)
      end
    end
  end
end
