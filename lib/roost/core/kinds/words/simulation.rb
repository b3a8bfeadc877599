# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          GENERIC = %w[birds water winter food wind far home reeds feathers cold south river].freeze
          private_constant :GENERIC

          of_prompt :settings, :most

          # Common words more often than rare ones, as in any class.
          def simulate(_student, random)
            words = settings["samples"].empty? ? GENERIC : settings["samples"]
            count = 1 + random.rand(most)
            { "words" => Array.new(count) { words[(words.length * (random.rand**2)).floor] }.uniq }
          end
        end
      end
    end
  end
end
