# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # Sketches stand side by side or lie over each other, more or less faint.
        class Handling < Kinds::Handling
          ARGUMENTS = %w[way opacity].freeze
          # Percent at which sketches lie over each other.
          OPACITIES = (10..60)
          OPACITY = 30

          def look(arguments, before)
            opacity = Integer(arguments["opacity"].to_s, 10, exception: false) || before["opacity"] || OPACITY
            super.merge("opacity" => opacity.clamp(OPACITIES.min, OPACITIES.max))
          end
        end
      end
    end
  end
end
