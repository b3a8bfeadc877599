# frozen_string_literal: true

module Roost
  module Core
    module Game
      module Styles
        # The class has one total and a goal: points times the mark, and nobody is ranked.
        class Together < Style
          def self.place = 4
          def self.label = "Together"
          def self.settings = [:goal]

          def sentence
            "The whole class plays together. Every right answer adds to one total. Can you reach #{(goal * 100).round} %?"
          end

          def ranked? = false
        end
      end
    end
  end
end
