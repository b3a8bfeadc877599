# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :right_gaps, :gaps

          # rules.md, marks: the share of gaps that are right.
          def mark(value, steps: nil)
            return nil unless keyed?

            right = right_gaps(value).count(true)
            Step.note(steps, :right_of_all, Rational(right, gaps.length), right: right, of: gaps.length)
          end
        end
      end
    end
  end
end
