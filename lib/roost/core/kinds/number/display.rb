# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :unit, :band

          def right_in_words
            return nil unless band

            ends = band.uniq.map { |number| NumberText.show(number) }
            [ends.length == 1 ? ends.first : "from #{ends.first} to #{ends.last}", unit].reject(&:empty?).join(" ")
          end

          def short(value) = value["number"] ? NumberText.show(Rational(value["number"])) : ""

          def short_in_words? = false

          # The number itself, and the bin it lies in.
          def tally_parts(value, tally)
            return [] unless value["number"] && tally.spread

            number = Rational(value["number"])
            bins = tally.spread.bins
            bin = bins.index { |each| number < each.to } || (bins.length - 1)
            [Display.part_of(number), "bin#{bin}"]
          end

          # @param number [Rational]
          def self.part_of(number) = "at#{number}"

          def plain(value) = value["number"] ? "#{NumberText.show(Rational(value["number"]))} #{unit}".strip : ""
        end
      end
    end
  end
end
