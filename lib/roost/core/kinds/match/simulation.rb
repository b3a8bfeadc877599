# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          of_prompt :right_items, :game?, :keys, :settings

          # Each pair by itself: known, or guessed. Played, all are found sooner or later.
          def simulate(student, random)
            rights = right_items
            return { "pairs" => keys, "tries" => keys.length + random.rand(keys.length * 2) } if game?

            pairs = keys.to_h do |left, right|
              known = student.knows?(settings["difficulty"] || 0.0, chance: 1.0 / rights.length, random: random)
              [left, known ? right : rights[random.rand(rights.length)].id]
            end
            { "pairs" => pairs, "tries" => nil }
          end
        end
      end
    end
  end
end
