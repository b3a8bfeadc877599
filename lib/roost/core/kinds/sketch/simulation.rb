# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          # The outline of a wing: one edge, a fan of feathers, and now and then a word.
          def simulate(_student, random)
            colour = Drawing::Sheet::COLOURS.keys[random.rand(Drawing::Sheet::COLOURS.length)]
            left = 150 + random.rand(120)
            base = 560 + random.rand(80)
            lift = 260 + random.rand(160)
            edge = (0..24).flat_map { |step| [left + (step * 34), (base - (lift * Math.sin(step * Math::PI / 26))).round] }
            feathers = (0..(5 + random.rand(4))).map do |place|
              x = left + 100 + (place * 90)
              top = (base - (lift * Math.sin((x - left) / 34.0 * Math::PI / 26))).round
              { "tool" => "pen", "colour" => colour,
                "points" => [x, top, x - 20, top + 120, x - 60, top + 200 + random.rand(60)] }
            end
            strokes = [{ "tool" => "pen", "colour" => "ink", "points" => edge }, *feathers]
            if random.rand < 0.3
              strokes << { "tool" => "text", "colour" => "ink", "points" => [left, base + 150], "text" => "long feathers" }
            end
            { "strokes" => strokes, "no" => Drawing::Strokes.fingerprint(strokes) }
          end
        end
      end
    end
  end
end
