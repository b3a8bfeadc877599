# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # Reads a drawing.
        class Reader < Kinds::Reader
          MOST_BYTES = 200_000
          UNREADABLE = Reading.refused("That drawing could not be read. Reload the page and draw again.")
          LARGE = Reading.refused("That drawing is too large. Undo a few strokes.")
          private_constant :UNREADABLE, :LARGE

          # @param raw [Hash] "strokes" holds the strokes as JSON text
          def read(raw, _names = nil)
            text = field(raw, "strokes").to_s
            return LARGE if text.bytesize > MOST_BYTES

            strokes = parsed(text, most: MOST_BYTES, nesting: 5)
            return UNREADABLE unless strokes

            Drawing::Strokes.read(strokes)
                            .map { |kept| { "strokes" => kept, "no" => Drawing::Strokes.fingerprint(kept) } }
          end

          def blank_answer?(value) = value["strokes"].empty?

          def missing = "Draw something first."
        end
      end
    end
  end
end
