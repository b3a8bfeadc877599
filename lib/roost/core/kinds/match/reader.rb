# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # Reads an answer to it.
        class Reader < Kinds::Reader
          MOST_TRIES = 1000
          MOST_BYTES = 2000
          UNREADABLE = Reading.refused("Those pairs could not be read. Reload the page and pair them again.")

          of_prompt :game?, :keys, :own, :right_items

          # Two cards of the game that were turned over, each known to the seat by a name. Where the parts don't lie face down it
          # tells nothing: it would tell the key.
          # @param cards [Array(String, String)]
          # @param names [Session::ItemIds]
          # @return [Array(String, String), nil] the pair they make, as the form of an answer has it
          def turned(cards, names)
            return nil unless game? && cards.length == 2

            left, right = cards.map { |card| names.item(card).to_s }.sort_by { |card| card[-1].to_s }
            row = left[0..-2]
            [names.of(left), names.of("#{own(row)}b")] if left == "#{row}a" && right == "#{row}b" && keys.key?(row)
          end

          # @param raw [Hash] "pairs" holds them as JSON text ({"m1a": "m3b"}), "tries" a number
          def read(raw, names = Session::ItemIds::PLAIN)
            pairs = parsed(field(raw, "pairs").to_s, most: MOST_BYTES)
            pairs = {} if pairs == []
            return UNREADABLE unless pairs.is_a?(Hash)

            pairs = pairs.to_h { |left, right| [row_of_item(names.item(left), "a"), row_of_item(names.item(right), "b")] }
            return UNREADABLE unless (pairs.keys - keys.keys).empty?
            return UNREADABLE unless (pairs.values - right_items.map(&:id)).empty?

            tries = Integer(field(raw, "tries").to_s, 10, exception: false)
            Reading.ok({ "pairs" => pairs, "tries" => (tries.clamp(0, MOST_TRIES) if tries && game?) })
          end

          def blank_answer?(value) = value["pairs"].empty?

          def missing = "Pair something first."

          private

          def row_of_item(item_id, side)
            item_id.delete_suffix(side) if item_id.is_a?(String) && item_id.end_with?(side)
          end
        end
      end
    end
  end
end
