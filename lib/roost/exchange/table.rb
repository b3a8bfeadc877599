# frozen_string_literal: true

require "json"

module Roost
  module Exchange
    # Rows of text out of a sheet from outside, which is read in a process of its own with little
    # time and memory (table/reader.rb).
    class Table
      MOST_BYTES = 10 * 1024 * 1024
      SLOW = "is too much to be read. Save it as a plain CSV, or split it."

      # A cell whose value is worked out by a formula, of which we know only that.
      FORMULA = Object.new.freeze

      # @param path [String]
      # @param most [Integer] rows beyond this many are not read
      # @return [Core::Reading] of Array of rows, each an Array of String or FORMULA; refused in
      #   words that go on after the file's name
      def self.read(path, most:)
        return Core::Reading.refused("is larger than 10 MB.") if File.size(path) > MOST_BYTES

        done = Confined.read("sheet", path, most)
        told = done.output.force_encoding(Encoding::UTF_8)
        return Core::Reading.ok(JSON.parse(told).map { |row| row.map { |cell| cell || FORMULA } }) if done.success

        Core::Reading.refused(done.refusal || SLOW)
      end
    end
  end
end
