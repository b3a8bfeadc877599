# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :regions, :outside

          # How many, and where there are names for them, in which regions.
          def right_in_words
            named = regions.map(&:name).reject(&:empty?)
            named.join(", ") if named.any?
          end

          def short(value)
            found = regions.select { |region| value["spots"].any? { |spot| region.cover?(spot["x"], spot["y"]) } }
            named = found.map(&:name).reject(&:empty?)
            named.any? ? named.join(", ") : "● #{value["spots"].length}"
          end

          def short_in_words? = regions.any? { |region| !region.name.empty? }

          # Regions with a spot in them, and whether one is outside of all.
          def tally_parts(value, _tally)
            inside = regions.each_index.select do |place|
              value["spots"].any? { |spot| regions[place].cover?(spot["x"], spot["y"]) }
            end
            [*inside.map { |place| "region#{place}" }, ("outside" if outside(value).positive?)].compact
          end

          # In percent of the way from the left and from the top.
          def plain(value)
            value["spots"].map do |spot|
              place = "#{(spot["x"] * 100).round} % across, #{(spot["y"] * 100).round} % down"
              spot["label"].to_s.empty? ? place : "#{spot["label"]}: #{place}"
            end.join("; ")
          end
        end
      end
    end
  end
end
