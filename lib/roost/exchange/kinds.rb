# frozen_string_literal: true

module Roost
  module Exchange
    # What each kind of prompt brings along for exchange: one folder each in exchange/kinds/.
    module Kinds
      # @param kind [String] name of a kind
      # @return [Class] how it stands in a row of a sheet of questions
      def self.sheet_row(kind)
        return SheetRow unless const_defined?(Core::Kinds.constant(kind), false)

        folder = const_get(Core::Kinds.constant(kind), false)
        folder.const_defined?(:SheetRow, false) ? folder.const_get(:SheetRow, false) : SheetRow
      end

      # What the kinds say of a column of a sheet of questions.
      # @param what [String] a key of SheetRow::EXPLAINED
      # @return [String]
      def self.explained(what)
        said = Core::Kinds.all.map(&:kind).to_h { |kind| [kind, sheet_row(kind)::EXPLAINED[what]] }.compact
        said.map { |kind, words| "For #{kind}: #{words}." }.join(" ")
      end
    end
  end
end
