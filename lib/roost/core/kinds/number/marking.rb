# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :band

          # rules.md, marks: 1 inside the tolerance or the closed range, else 0.
          def mark(value, **)
            low, high = band
            low && Rational(Rational(value["number"]).between?(low, high) ? 1 : 0)
          end
        end
      end
    end
  end
end
