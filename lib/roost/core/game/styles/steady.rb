# frozen_string_literal: true

module Roost
  module Core
    module Game
      module Styles
        # No clock: points times the mark.
        class Steady < Style
          def self.place = 2
          def self.label = "Steady"

          def sentence = "No clock: a right answer earns the same points, however long you take."

          def clock? = false
        end
      end
    end
  end
end
