# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          def tally_parts(value, _tally) = value["words"].map { |word| Display.part_of(Prompt.same(word)) }

          # @param key [String] as in the tally's rows
          def self.part_of(key) = "word#{Text.tag(key)}"

          def plain(value) = value["words"].join(", ")
        end
      end
    end
  end
end
