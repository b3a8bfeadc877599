# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # Reads an answer to it.
        class Reader < Kinds::Reader
          MOST_BYTES = 400
          UNREADABLE = Reading.refused("That order could not be read. Reload the page and sort again.")

          of_prompt :items

          # @param raw [Hash] "order" holds the ids with commas between
          def read(raw, names = Session::ItemIds::PLAIN)
            text = field(raw, "order").to_s
            return UNREADABLE if text.bytesize > MOST_BYTES || !text.valid_encoding?

            ids = text.split(",", -1).map { |name| names.item(name) }
            return Reading.ok({ "order" => [] }) if ids.empty?

            ids.all? && ids.sort == items.map(&:id).sort ? Reading.ok({ "order" => ids }) : UNREADABLE
          end

          def blank_answer?(value) = value["order"].empty?
        end
      end
    end
  end
end
