# frozen_string_literal: true

module Roost
  module Operations
    # Takes a sheet of learning standards into a teacher's list.
    class KeepStandards
      NONE = "has no standard that can be used."

      # @param path [String] of the sheet, or of a CASE package
      # @param name [String] of the file, whose ending says which
      # @param for_all [Boolean] whether colleagues find them, too
      # @return [Core::Reading] of what Exchange::StandardsSheet found; refused in words that go on after
      #   the file's name
      def call(account_id, path, for_all:, name: "")
        reader = name.downcase.end_with?(".json") ? Exchange::CaseFramework : Exchange::StandardsSheet
        reader.read(path).and_then do |found|
          next Core::Reading.refused(NONE) if found.standards.empty?

          Store::Standards.new.keep(account_id, found.standards, for_all: for_all)
          Core::Reading.ok(found)
        end
      end
    end
  end
end
