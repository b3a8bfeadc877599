# frozen_string_literal: true

module Roost
  module Web
    # Answers that are pictures, as SVG, for whoever has no page at hand.
    class AnswerDrawings
      include Rendering

      # @param slide [Core::Slide]
      # @param value [Hash] of an answer to its question
      # @return [String, nil] nil of what is no picture
      def call(slide, value)
        return nil unless kind_view?(slide.prompt, "picture")

        drawn(slide.prompt, value, under: slide.prompt.uses_picture? ? slide.picture : nil)
      end
    end
  end
end
