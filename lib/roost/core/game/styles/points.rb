# frozen_string_literal: true

module Roost
  module Core
    module Game
      module Styles
        # The quicker, the more, after a time to read that costs nothing.
        class Points < Style
          def self.place = 1
          def self.label = "Points"
          def self.settings = [:speed]

          def sentence
            return "Every right answer earns its points, however long you take." if speed.zero?

            "Right answers earn points. Reading time is free; after that, quicker answers earn a little more."
          end

          def timed? = true

          def earned(points, mark, used: nil, timing: nil, steps: nil, **_about)
            Game::Points.for(points: points, mark: mark, seconds: used || timing&.total, time_limit: timing&.thinking,
                             free: timing&.reading || 0, speed: speed, steps: steps)
          end
        end
      end
    end
  end
end
