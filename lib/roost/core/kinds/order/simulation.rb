# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          of_prompt :items, :settings

          # Right, or with neighbours exchanged: the less able, the more often.
          def simulate(student, random)
            ids = items.map(&:id)
            return { "order" => ids } if student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)

            (1 + random.rand(ids.length)).times do
              place = random.rand(ids.length - 1)
              ids[place], ids[place + 1] = ids[place + 1], ids[place]
            end
            { "order" => ids }
          end
        end
      end
    end
  end
end
