# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          # place:: mean position from 1, nil when nobody answered; counts:: how many put it at
          # each position; right:: how many put it at its own
          Row = Struct.new(:item, :place, :counts, :right, keyword_init: true)
          # places, orders:: Tallies::Count of [item, place] and of whole orders
          Tally = Struct.new(:rows, :answered, :right, :places, :orders, keyword_init: true)

          of_prompt :items, :keyed?

          def gathered(values, before: nil, **)
            places = Tallies::Count.new(values, before: before&.places) { |value| value["order"].each_with_index.to_a }
            orders = Tallies::Count.new(values, before: before&.orders) { |value| [value["order"]] }
            Tally.new(rows: items.each_with_index.map { |item, own| row(item, own, places) }, answered: places.answered,
                      right: (orders.of(items.map(&:id)) if keyed?), places: places, orders: orders).freeze
          end

          private

          # @param own [Integer] its place in the right order, from 0
          # @param places [Tallies::Count] of [item, place]
          def row(item, own, places)
            counts = Array.new(items.length) { |place| places.of([item.id, place]) }
            sum = counts.each_with_index.sum { |count, place| (place + 1) * count }
            Row.new(item: item, counts: counts, right: counts[own],
                    place: (Rational(sum, places.answered) if places.answered.positive?)).freeze
          end
        end
      end
    end
  end
end
