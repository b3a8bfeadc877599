# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :blank_answer?, :sorted, :items, :keyed?

          # Which place in the right order each has.
          def right_in_words = keyed? ? items.map(&:text).join(", ") : nil

          def short(value) = blank_answer?(value) ? "" : sorted(value).map { |item| items.index(item) + 1 }.join(" ")

          def short_in_words? = items.length > 4

          # Which item was put at which place.
          def tally_parts(value, _tally) = value["order"].each_with_index.map { |item, place| "#{item}-#{place}" }

          def plain(value) = blank_answer?(value) ? "" : sorted(value).map(&:text).join(" > ")
        end
      end
    end
  end
end
