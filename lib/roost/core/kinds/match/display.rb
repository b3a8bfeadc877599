# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :right_items, :lefts, :keys, :keyed?

          def right_in_words = keyed? ? plain({ "pairs" => keys }) : nil

          def short(value) = "#{value["pairs"].count { |left, right| keys[left] == right }}/#{lefts.length}"

          def short_in_words? = false

          def tally_parts(value, _tally) = value["pairs"].map { |left, right| "#{left}-#{right}" }

          def plain(value)
            rights = right_items.to_h { |item| [item.id, item.name] }
            pairs = lefts.map { |item| "#{item.name} – #{rights.fetch(value["pairs"][item.id], "?")}" }.join("; ")
            value["tries"] ? "#{pairs} (#{value["tries"]} tries)" : pairs
          end
        end
      end
    end
  end
end
