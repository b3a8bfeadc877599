# frozen_string_literal: true

module Roost
  module Core
    module Game
      # Points in a game round (rules.md). Reading is free, then time used costs up to
      # the speed share of the points.
      module Points
        MOST_READING = 60 # seconds

        # Seconds to read before the time limit begins: 2 + words/3, to 0.1 s, at most 60.
        # @param words [Integer] of heading, prompt and options as shown
        # @return [Rational]
        def self.reading_time(words) = [2 + Rational(words, 3), MOST_READING].min.round(1)

        # The same as it was before reading had a time of its own (Session::Rules): min(T/2, 2 + words/3), within T.
        # @param time_limit [Numeric] seconds
        # @return [Rational]
        def self.reading_within(time_limit, words) = [Rational(time_limit) / 2, 2 + Rational(words, 3)].min.round(1)

        # @param points [Integer] for a full mark
        # @param mark [Rational] 0 to 1
        # @param seconds [Numeric] time used, of a seat with extra time divided by its factor
        # @param time_limit [Numeric, nil] seconds to think
        # @param free [Numeric] seconds before speed counts
        # @param speed [Rational] share that speed decides, 0 to 1/2
        # @param steps [Array<Step>, nil] to which it is added how they come about
        # @return [Integer] round_half_up(P × mark × (1 − s × max(0, t − g)/T)); of earlier rules T is what is left after g
        def self.for(points:, mark:, seconds:, time_limit:, speed:, free: 0, steps: nil)
          earned = Step.note(steps, :for_the_mark, points * mark, points: points, mark: mark)
          if time_limit && !mark.zero?
            used = Rational(seconds.to_s).clamp(0, free + time_limit)
            slow = [0, used - free].max / time_limit
            earned = Step.note(steps, :for_the_time, earned * (1 - (speed * slow)), earned: earned, used: used, reading: free,
                                                                                    limit: time_limit, speed: speed)
          end
          Step.note(steps, :rounded, earned.round(half: :up), earned: earned)
        end
      end
    end
  end
end
