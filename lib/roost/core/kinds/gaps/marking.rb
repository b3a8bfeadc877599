# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :right_gaps, :gaps

          # rules.md, marks: the share of gaps that are right.
          def mark(value)
            return nil unless keyed?

            Rational(right_gaps(value).count(true), gaps.length)
          end
        end
      end
    end
  end
end
