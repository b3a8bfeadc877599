# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # Reads an answer to it.
        class Reader < Kinds::Reader
          LABEL_LIMIT = 24
          UNREADABLE = Reading.refused("Those spots could not be read. Reload the page and place them again.")

          of_prompt :most, :labels?

          # @param raw [Hash] "spots" holds them as JSON text: [[x, y, label], …]
          def read(raw, _names = nil)
            spots = parsed(field(raw, "spots").to_s, most: Prompt::MOST_BYTES)
            return UNREADABLE unless spots.is_a?(Array)
            if spots.length > most
              return Reading.refused("#{most} #{most == 1 ? "spot" : "spots"} is the most here. Remove some.")
            end

            readings = spots.map { |spot| read_spot(spot) }
            readings.find { |reading| !reading.ok? } || Reading.ok({ "spots" => readings.map(&:value) })
          end

          def blank_answer?(value) = value["spots"].empty?

          def missing = "Place a spot first."

          private

          def read_spot(spot)
            return UNREADABLE unless spot.is_a?(Array) && spot.length.between?(2, 3)

            x, y, label = spot
            return UNREADABLE unless [x, y].all? { |number| number.is_a?(Numeric) && number.between?(0, 1) }

            Text.read(label, limit: LABEL_LIMIT, what: "A name", lines: false).map do |name|
              { "x" => x.to_f.round(Prompt::PLACES), "y" => y.to_f.round(Prompt::PLACES), "label" => labels? ? name : "" }
            end
          end
        end
      end
    end
  end
end
