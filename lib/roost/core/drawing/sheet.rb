# frozen_string_literal: true

module Roost
  module Core
    module Drawing
      # The sheet that is drawn on, in units of its own, and the colours there are for drawing on it or
      # on a picture.
      module Sheet
        WIDTH = 1200
        HEIGHT = 900
        COLOURS = { "ink" => "#251f33", "rust" => "#b2432a", "moss" => "#2c7a57",
                    "water" => "#1f6391", "amber" => "#d98a12" }.freeze
      end
    end
  end
end
