# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          of_prompt :keyed?, :settings, :options, :sure?, :several?, :shape

          # A right answer with the chance of the Rasch model, never below guessing;
          # otherwise the first wrong options pull more than the last, and where several
          # may be chosen a part of the key comes with them.
          def simulate(student, random)
            knows = keyed? && student.knows?(settings["difficulty"] || 0.0, chance: 1.0 / options.length, random: random)
            picked = { "options" => simulated(knows, random) }
            sure? ? picked.merge("sure" => Sureness.simulate(knows, random)) : picked
          end

          private

          def simulated(knows, random)
            return several? ? shape & settings["keys"] : settings["keys"].first(1) if knows

            half_known = several? ? settings["keys"].select { random.rand < 0.6 } : []
            shape & (half_known | [stray(random)])
          end

          def stray(random)
            ids = (shape - settings["keys"]).then { |wrong| wrong.empty? ? shape : wrong }
            weights = ids.each_index.map { |place| 1.0 / (place + 1) }
            point = random.rand * weights.sum
            ids.each_with_index { |id, place| return id if (point -= weights[place]) <= 0 }
            ids.last
          end
        end
      end
    end
  end
end
