# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          Student = Practice::Student
          private_constant :Student

          of_prompt :band, :keyed?, :settings

          # Right answers are the middle of the key; wrong ones stray from it, some by a factor of ten.
          def simulate(student, random)
            low, high = band || [5r, 15r]
            middle = (low + high) / 2
            knows = keyed? && student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)
            number = knows ? middle : stray(middle, random)
            { "text" => NumberText.show(number), "number" => number.to_s }
          end

          private

          def stray(middle, random)
            return middle * 10 if random.rand < 0.06

            off = middle * Rational(((Student.normal(random) * 0.35) + 0.2).round(2).to_s)
            (middle + off).round(middle.abs >= 20 ? 0 : 1)
          end
        end
      end
    end
  end
end
