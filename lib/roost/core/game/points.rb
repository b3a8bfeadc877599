# frozen_string_literal: true

module Roost
  module Core
    module Game
      # Points in a game round (rules.md). Reading is free, then time used costs up to
      # the speed share of the points.
      module Points
        # Seconds within which speed never counts: min(T/2, 2 + words/3), to 0.1 s.
        # @param time_limit [Numeric] seconds
        # @param words [Integer] of heading, text and options as shown
        # @return [Rational]
        def self.reading_time(time_limit, words)
          [Rational(time_limit) / 2, 2 + Rational(words, 3)].min.round(1)
        end

        # @param points [Integer] for a full mark
        # @param mark [Rational] 0 to 1
        # @param seconds [Numeric] time used
        # @param time_limit [Numeric, nil] seconds
        # @param words [Integer]
        # @param speed [Rational] share that speed decides, 0 to 1/2
        # @return [Integer] round_half_up(P × mark × (1 − s × max(0, t − g)/(T − g)))
        def self.for(points:, mark:, seconds:, time_limit:, words:, speed:)
          return 0 if mark.zero?
          return (points * mark).round(half: :up) unless time_limit

          free = reading_time(time_limit, words)
          used = Rational(seconds.to_s).clamp(0, time_limit)
          slow = [0, used - free].max / (time_limit - free)
          (points * mark * (1 - (speed * slow))).round(half: :up)
        end
      end
    end
  end
end
