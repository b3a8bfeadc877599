# frozen_string_literal: true

module Roost
  module Operations
    # Keeps what a student notes for themselves on a slide, as long as answers are kept. Nobody else sees it. It comes and is
    # answered as the draft of an answer is (SaveAnswer).
    class KeepNote
      LIMIT = 4_000 # characters
      OVER = "This lesson is over. Your notes were not changed."
      NO_SLIDE = "That slide is not known. Reload the page."

      # @param seat [Hash] :id
      # @param row [Store::Sessions::Row] of its session
      # @param message [Hash] "slide", "attempt", "fields" with "text", "save_no", "save_id", "writer" and "over"
      # @return [SaveAnswer::Reply]
      def call(seat, row, message)
        return refused(SaveAnswer::BAD) unless SaveAnswer.readable?(message)
        return refused(OVER) if over?(row)

        return refused(NO_SLIDE) unless Store::Sessions.new.lesson_of(row).stop(message["slide"])
        return refused(NO_SLIDE) if (message["attempt"] || 1) > latest_attempt(row, seat, message["slide"])

        text = read(message["fields"])
        text.ok? ? save(seat, text.value, message) : refused(text.reason)
      end

      private

      def over?(row) = row.deleted || (row.ended_at && row.now > row.ended_at.to_f + Core::Session::Acceptance::LATEST)

      # @return [Integer]
      def latest_attempt(row, seat, slide_id)
        own = Store::Sittings.new.latest_of_seat(seat[:id])&.sitting&.attempt if row.self_paced
        own || row.state.opening(slide_id)&.attempt || 1
      end

      def read(fields)
        text = fields.is_a?(Hash) ? fields["text"] : nil
        Core::Text.read(text.is_a?(Array) ? text.first : text, limit: LIMIT, what: "A note")
      end

      def save(seat, text, message)
        notes = Store::Notes.new
        of = [seat[:id], message["slide"]]
        attempt = message["attempt"] || 1
        given = { save_no: message["save_no"], save_id: message["save_id"], writer: message["writer"], attempt: attempt }
        return kept(message) if notes.save(*of, text: text, over: message["over"] || [], **given)

        stored = notes.find(*of, attempt)
        return kept(message) if stored.save_id == message["save_id"]

        SaveAnswer.other_window?(stored, message) ? elsewhere(stored) : behind(stored)
      end

      def kept(message) = SaveAnswer::Reply.new(state: "draft", save_no: message["save_no"]).freeze

      def elsewhere(stored)
        SaveAnswer::Reply.new(state: "elsewhere", save_no: stored.save_no, saved: stored.save_id).freeze
      end

      def behind(stored) = SaveAnswer::Reply.new(state: "behind", save_no: stored.save_no).freeze

      def refused(message) = SaveAnswer::Reply.new(state: "refused", message: message).freeze
    end
  end
end
