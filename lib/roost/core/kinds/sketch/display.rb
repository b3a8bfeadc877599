# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          ON_A_PAGE = 18

          def pages(tally, way) = way == "overlay" ? 1 : pages_of(tally.drawings.length, ON_A_PAGE)

          def page(tally, way, number)
            return tally if way == "overlay"

            Prompt::Tally.new(**tally.to_h, drawings: tally.drawings.drop(number * ON_A_PAGE).first(ON_A_PAGE)).freeze
          end

          def drawn_parts(_value) = [""]

          # A picture is like no other.
          def answered(_value) = ""

          def short(_value) = "✎"

          def short_in_words? = false

          def plain(value)
            strokes = value["strokes"]
            texts = strokes.select { |stroke| stroke["tool"] == "text" }.map { |stroke| stroke["text"] }
            count = "#{strokes.length} #{strokes.length == 1 ? "stroke" : "strokes"}"
            texts.empty? ? "sketch, #{count}" : "sketch, #{count}: #{texts.join("; ")}"
          end
        end
      end
    end
  end
end
