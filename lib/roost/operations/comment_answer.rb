# frozen_string_literal: true

module Roost
  module Operations
    # A teacher writes to one student about what they gave to one question. The student finds it on their page and in their own
    # copy, once it is told how it went.
    class CommentAnswer
      LIMIT = 1_000 # characters

      # @param raw_text [String] empty to take it back
      # @return [Core::Reading, nil] of the text; nil when she has no such session, seat or question
      def call(account_id, session_id, seat_id, slide_id, raw_text)
        return nil unless hers?(account_id, session_id, seat_id, slide_id)

        Core::Text.read(raw_text, limit: LIMIT, what: "A comment").map do |text|
          Store::Comments.new.write(seat_id, slide_id, text)
          text
        end
      end

      private

      def hers?(account_id, session_id, seat_id, slide_id)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        row && Store::Seats.new.in?(session_id, seat_id) && !Store::Sessions.new.lesson_of(row).slide(slide_id)&.prompt.nil?
      end
    end
  end
end
