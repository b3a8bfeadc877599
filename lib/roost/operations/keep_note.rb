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
      # @param message [Hash] "slide", "fields" with "text", "save_no", "save_id", "writer" and "over"
      # @return [SaveAnswer::Reply]
      def call(seat, row, message)
        return refused(SaveAnswer::BAD) unless SaveAnswer.readable?(message)
        return refused(OVER) if over?(row)

        slide_id = message["slide"]
        return refused(NO_SLIDE) unless Store::Sessions.new.lesson_of(row).station(slide_id)

        text = read(message["fields"])
        text.ok? ? save(seat, slide_id, text.value, message) : refused(text.reason)
      end

      private

      def over?(row) = row.deleted || (row.ended_at && row.now > row.ended_at.to_f + Core::Session::Acceptance::LATEST)

      def read(fields)
        text = fields.is_a?(Hash) ? fields["text"] : nil
        Core::Text.read(text.is_a?(Array) ? text.first : text, limit: LIMIT, what: "A note")
      end

      def save(seat, slide_id, text, message)
        notes = Store::Notes.new
        given = { save_no: message["save_no"], save_id: message["save_id"], writer: message["writer"] }
        return kept(message) if notes.save(seat[:id], slide_id, text: text, over: message["over"] || [], **given)

        stored = notes.of_seat(seat[:id]).fetch(slide_id)
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
