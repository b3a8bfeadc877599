# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :keys

          # rules.md, marks: right pairs / pairs asked.
          def mark(value)
            return nil unless keyed?

            Rational(keys.count { |left, right| value["pairs"][left] == right }, [keys.length, 1].max)
          end
        end
      end
    end
  end
end
