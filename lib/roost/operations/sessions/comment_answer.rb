# frozen_string_literal: true

module Roost
  module Operations
    # A teacher writes to one student about what they gave to one question. The student finds it on their page and in their own
    # copy, once it is told how it went.
    class CommentAnswer
      LIMIT = 1_000 # characters

      # @param raw_text [String] empty to take it back
      # @param attempt [Integer] at the question, of those that there were
      # @return [Core::Reading, nil] of the text; nil when she has no such session, seat, question or attempt
      def call(account_id, session_id, seat_id, slide_id, raw_text, attempt: 1)
        return nil unless hers?(account_id, session_id, seat_id, slide_id) && attempt?(session_id, seat_id, slide_id, attempt)

        Core::Text.read(raw_text, limit: LIMIT, what: "A comment").map do |text|
          Store::Comments.new.write(seat_id, slide_id, text, attempt: attempt)
          text
        end
      end

      private

      def hers?(account_id, session_id, seat_id, slide_id)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        row && Store::Seats.new.in?(session_id, seat_id) && !Store::Sessions.new.lesson_of(row).slide(slide_id)&.prompt.nil?
      end

      # One that the room had, or this student. The first there is also where nothing was given.
      def attempt?(session_id, seat_id, slide_id, attempt)
        return true if attempt == 1

        Store::Sessions.new.find(session_id).state.facts.opening(slide_id, attempt) ||
          Store::Sittings.new.all_of_seat(seat_id).any? { |kept| kept.sitting.attempt == attempt }
      end
    end
  end
end
