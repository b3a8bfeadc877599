# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :items, :partial?

          # rules.md, marks: exact, or the share of item pairs in the right relative order (Kendall).
          def mark(value, steps: nil)
            return nil unless keyed?

            places = items.map { |item| value["order"].index(item.id) }
            pairs = places.combination(2).to_a
            right = pairs.count { |one, other| one < other }
            if partial?
              Step.note(steps, :pairs_in_order, Rational(right, pairs.length), right: right, of: pairs.length)
            else
              Rational(right == pairs.length ? 1 : 0)
            end
          end
        end
      end
    end
  end
end
