# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :settings, :several?, :partial?

          # rules.md, marks: max(0, (hits - wrong picks) / keys) with partial credit. Where one
          # option is chosen and several are right, any of them is.
          def mark(value)
            return nil unless keyed?

            keys = settings["keys"]
            picked = value["options"]
            return Rational((picked & keys).length) unless several?
            return Rational(((keys - picked) | (picked - keys)).empty? ? 1 : 0) unless partial?

            hits = (picked & keys).length
            [Rational(0), Rational(hits - (picked - keys).length, keys.length)].max
          end
        end
      end
    end
  end
end
