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
          def mark(value, steps: nil)
            return nil unless keyed?

            keys = settings["keys"]
            picked = value["options"]
            return Rational((picked & keys).length) unless several?
            return Rational(((keys - picked) | (picked - keys)).empty? ? 1 : 0) unless partial?

            hits = (picked & keys).length
            wrong = (picked - keys).length
            Step.note(steps, :hits_less_wrong, [Rational(0), Rational(hits - wrong, keys.length)].max, hits: hits, wrong: wrong,
                                                                                                   of: keys.length)
          end
        end
      end
    end
  end
end
