# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :blank_answer?, :gaps, :filling, :right?

          def right_in_words = gaps.any? ? gaps.map(&:first).join("; ") : nil

          def short(value)
            return super if gaps.length == 1

            "#{gaps.each_with_index.count { |accepted, number| right?(filling(value, number), accepted) }}/#{gaps.length}"
          end

          def short_in_words? = gaps.length == 1

          # What stands in each gap, and whether that is right.
          def tally_parts(value, _tally)
            return [] if blank_answer?(value)

            gaps.each_with_index.flat_map do |accepted, number|
              put = filling(value, number)
              [Display.part_of(number, put), ("gap#{number}-right" if right?(put, accepted))].compact
            end
          end

          # @param put [String] as it was typed
          def self.part_of(number, put) = "gap#{number}-#{Text.tag(put)}"

          def plain(value) = value["gaps"].map { |filling| filling.empty? ? "–" : filling }.join("; ")
        end
      end
    end
  end
end
