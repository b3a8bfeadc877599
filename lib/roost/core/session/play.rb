# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How a question is played. game:: whether for points; speed:: share of them that speed decides; rules:: Rules of the
      # session; factor:: of the seat's time
      Play = Struct.new(:game, :speed, :rules, :factor) do
        # @param slide [Slide]
        # @return [Game::Timing, nil] the clock of its question; nil where none runs
        def timing(slide)
          return Game::Timing.of(slide, rules) if game

          slide.prompt.time_limit && Game::Timing.new(0, slide.prompt.time_limit)
        end

        # What a readable answer earns: how right it is, and nothing when it came too late.
        # @param answer [Answer]
        # @return [Rational, nil] nil where nothing marks it
        def mark(prompt, answer)
          return nil unless prompt.keyed?

          uncounted?(answer) ? 0r : prompt.mark(answer.value)
        end

        # Whether an answer came too late to earn anything.
        def uncounted?(answer) = answer.late? && (game || !rules.late_earns?)
      end
    end
  end
end
