# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # Puts items into sequence, one under the other or along a line. The order in which the
        # teacher wrote them is the key; each seat gets them in another. A value is
        # {"order" => [ids]}.
        class Prompt < Core::Prompt
          Item = Struct.new(:id, :text, keyword_init: true)
          ITEMS = (2..12)

          def self.label = "Order"
          def self.place = 9
          def self.purpose = "Put items into sequence"
          def self.charted? = true
          def self.keyable? = true
          def self.on_the_spot = {}

          def self.blank
            { "items" => items([""] * 4), "made" => 4, "along" => false, "partial" => true }
          end

          def self.items(texts) = texts.each_with_index.map { |text, place| { "id" => "i#{place + 1}", "text" => text } }

          def instruction = along? ? "Put them along the line" : "Put them in order"

          def problems
            texts = items.map(&:text)
            [("fewer than two items" if texts.reject(&:empty?).length < 2), ("an item is empty" if texts.any?(&:empty?)),
             ("two items are the same" if texts.reject(&:empty?).uniq!)].compact
          end

          # What is written is the key.
          def keyed? = !settings["poll"]

          def shape = items.map(&:id).sort

          def along? = settings["along"]

          def partial? = settings["partial"]

          def shuffle? = true

          def items = settings["items"].map { |item| Item.new(id: item["id"], text: item["text"]).freeze }

          # The items as a seat gets them. It depends on what they are, not on how they were written:
          # so it may be the right order, as often as chance has it.
          # @param order [Integer, nil] which of the orders; nil for a preview
          def ordered_items(order) = items.sort_by(&:text).shuffle(random: Random.new(order || 0))

          def part_ids = items.map(&:id)

          # The items in the order of a value.
          def sorted(value) = items.sort_by { |item| value["order"].index(item.id) }

          def to_read = items.map(&:text)

          def searchable = super + items.map(&:text)
        end
      end
    end
  end
end
