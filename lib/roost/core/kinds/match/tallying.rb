# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          # key:: Prompt::Item it belongs to; counts:: right id to how many put it there; wrong:: the
          # commonest wrong Prompt::Item with its count, or nil
          Row = Struct.new(:item, :key, :counts, :right, :wrong, keyword_init: true)
          # columns:: the items on the right; tries:: their median where it was played, or nil;
          # pairs, wholes:: Tallies::Count of [left, right] and of all pairs together
          Tally = Struct.new(:rows, :columns, :answered, :right, :tries, :pairs, :wholes, keyword_init: true)

          of_prompt :blank_answer?, :right_items, :keys, :lefts

          def gathered(values, before: nil, **)
            pairs = Tallies::Count.new(values, before: before&.pairs) { |value| value["pairs"].to_a }
            wholes = Tallies::Count.new(values, before: before&.wholes) { |value| [value["pairs"]] }
            tries = values.each_value.filter_map { |value| value["tries"] unless blank_answer?(value) }
            Tally.new(rows: rows(pairs), columns: right_items, answered: pairs.answered, tries: median(tries),
                      right: wholes.of(keys), pairs: pairs, wholes: wholes).freeze
          end

          private

          # @param pairs [Tallies::Count] of [left, right]
          def rows(pairs)
            by_left = pairs.to_h.group_by { |(left, _right), _count| left }
            lefts.map do |item|
              row_of(item, keys[item.id], by_left.fetch(item.id, []).to_h { |(_left, right), count| [right, count] })
            end
          end

          # @param counts [Hash{String=>Integer}] id of a right item to how often it was chosen
          def row_of(item, key, counts)
            wrong = counts.except(key).max_by { |right, count| [count, -right_items.index { |column| column.id == right }] }
            find = ->(right_id) { right_items.find { |column| column.id == right_id } }
            Row.new(item: item, key: find.call(key), counts: counts, right: counts.fetch(key, 0),
                    wrong: wrong && [find.call(wrong.first), wrong.last]).freeze
          end

          def median(numbers) = Tallies::Spread.of(numbers.map(&:to_r))&.median
        end
      end
    end
  end
end
