# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :keys

          # rules.md, marks: right pairs / pairs asked.
          def mark(value, steps: nil)
            return nil unless keyed?

            right = keys.count { |left, other| value["pairs"][left] == other }
            all = [keys.length, 1].max
            Step.note(steps, :right_of_all, Rational(right, all), right: right, of: all)
          end
        end
      end
    end
  end
end
