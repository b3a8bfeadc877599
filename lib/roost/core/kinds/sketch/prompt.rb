# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # Draws on a blank sheet or over the slide's picture. A value is {"strokes" => [stroke]} as
        # Drawing::Strokes reads them; "no" changes with the strokes.
        class Prompt < Core::Prompt
          # drawings:: [Drawing]; of one answer each: seat_id and value
          Tally = Struct.new(:drawings, :answered, keyword_init: true)
          # Drawings laid over each other.
          MOST_OVER = 100

          def self.label = "Sketch"
          def self.place = 5
          def self.usual_seconds = 120
          def self.purpose = "Draw on a blank sheet or over the picture"
          def self.ways = { "sheet" => "Side by side", "overlay" => "All on one sheet" }

          def self.blank
            { "over_picture" => false }
          end

          def instruction = over_picture? ? "Draw on the picture" : "Draw your answer"

          def over_picture? = settings["over_picture"]

          def uses_picture? = over_picture?
        end
      end
    end
  end
end
