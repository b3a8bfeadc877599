# frozen_string_literal: true

module Roost
  module Core
    module Game
      module Styles
        # Certainty-based marking (after Gardner-Medwin): the surer, the more a right answer earns and a wrong one costs.
        class Sure < Style
          RIGHT = { 1 => 1, 2 => 2, 3 => 3 }.freeze
          WRONG = { 1 => 0, 2 => -2, 3 => -6 }.freeze

          def self.place = 3
          def self.label = "Sure"

          def sentence
            "Say how sure you are. If you're right, being surer earns more; if you're wrong, being sure costs points."
          end

          def certainty? = true

          def at_stake(points, sure) = [1r, 0r].map { |mark| earned(points, mark, sure: sure) }

          # Whoever didn't say how sure they are has the least to lose.
          def earned(points, mark, sure: nil, steps: nil, **_about)
            level = sure || 1
            times = { 1r => RIGHT[level], 0r => WRONG[level] }.fetch(mark.to_r, mark)
            earned = Step.note(steps, :for_being_sure, Rational(points, 3) * times, points: points, mark: mark, sure: level,
                                                                                    times: times)
            Step.note(steps, :rounded, earned.round(half: :up), earned: earned)
          end
        end
      end
    end
  end
end
