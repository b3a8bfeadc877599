# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          of_prompt :gaps, :settings, :bank_words

          # Each gap by itself: known, or filled with what belongs elsewhere.
          def simulate(student, random)
            fillings = gaps.map do |accepted|
              next accepted.first if student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)

              others = bank_words(nil) - [accepted.first]
              others.empty? ? accepted.first.reverse : others[random.rand(others.length)]
            end
            { "gaps" => fillings }
          end
        end
      end
    end
  end
end
