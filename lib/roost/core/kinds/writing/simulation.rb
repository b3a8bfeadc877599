# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Writing
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          GENERIC = ["I think it is because of the weather.", "Not sure yet, but the second picture helps.",
                     "It changes with the season.", "Because the food is somewhere else then.",
                     "We saw this last week at the window."].freeze
          private_constant :GENERIC

          of_prompt :settings, :boxes, :word_limit, :all_in_one

          # Sentences come from the demo lesson's small set, generic ones otherwise.
          def simulate(_student, random)
            samples = settings["samples"]
            samples = GENERIC if samples.empty?
            texts = Array.new([boxes.length, 1].max) { samples[random.rand(samples.length)] }
            texts = texts.map { |text| text.split.first(word_limit).join(" ") } if word_limit
            boxes.any? ? { "text" => all_in_one(texts), "boxes" => texts } : { "text" => texts.first }
          end
        end
      end
    end
  end
end
