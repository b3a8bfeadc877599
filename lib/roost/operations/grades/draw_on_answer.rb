# frozen_string_literal: true

module Roost
  module Operations
    # A teacher draws over a sketch or a card. It is kept beside what the student gave, never in it.
    class DrawOnAnswer
      MOST_BYTES = 200_000
      UNREADABLE = "That drawing could not be read. Reload the page and draw again."
      LARGE = "That drawing is too large. Undo a few strokes."
      NOTHING = "Nothing was drawn there that could be drawn on."

      # @param part [String] of the answer (Core::Kinds::Display#drawn_parts)
      # @param text [Object] strokes as JSON; none takes it back
      # @return [Core::Reading, nil] of the strokes; nil when she has no such session, seat or question
      def call(account_id, session_id, seat_id, slide_id, part, text)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        record = row && Store::Records.new.of(row)
        prompt = record&.seat(seat_id) && record.lesson.slide(slide_id)&.prompt
        return nil unless prompt

        answer = record.answer(slide_id, seat_id)
        return Core::Reading.refused(NOTHING) unless answer&.readable? && prompt.drawn_parts(answer.value).include?(part)

        DrawOnAnswer.read(text).map do |strokes|
          Store::DrawnOn.new.put(row.id, seat_id, slide_id, record.attempt(slide_id, seat_id), part, strokes)
          strokes
        end
      end

      # @return [Core::Reading] of Array of strokes
      def self.read(text)
        return Core::Reading.refused(LARGE) if text.to_s.bytesize > MOST_BYTES

        Core::Drawing::Strokes.read(JSON.parse(text.to_s.empty? ? "[]" : text, max_nesting: 5))
      rescue JSON::ParserError, EncodingError
        Core::Reading.refused(UNREADABLE)
      end
    end
  end
end
