# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          of_prompt :regions, :most, :settings, :labels?

          # In the regions when known, else near them or anywhere.
          def simulate(student, random)
            places = regions.flat_map { |region| [region] * region.wanted }
            places = Array.new(1 + random.rand(most)) if places.empty?
            spots = places.first(most).each_with_index.map do |region, number|
              known = region && student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)
              x, y = region ? region.middle : [0.5, 0.45]
              reach = known ? 0.03 : 0.22
              { "x" => stray(x, reach, random), "y" => stray(y, reach, random), "label" => labels? ? sample(number) : "" }
            end
            { "spots" => spots }
          end

          private

          def stray(middle, reach, random)
            (middle + (Practice::Student.normal(random) * reach)).clamp(0.01, 0.99).round(Prompt::PLACES)
          end

          def sample(number)
            names = regions.map(&:name).reject(&:empty?)
            names.empty? ? "here" : names[number % names.length]
          end
        end
      end
    end
  end
end
