# frozen_string_literal: true

module Roost
  module Operations
    # Saves what a seat has so far, as a draft or handed in. Lean on purpose: the
    # frozen lesson and the seat come from memory, one statement does the rest.
    class SaveAnswer
      # What the device is told. `state` is "draft", "final", "late", "refused" (with a
      # message; keep the text, stop sending) or "behind" (send again above `save_no`).
      Reply = Struct.new(:state, :message, :save_no, keyword_init: true)

      SETTLED = "This answer can't be changed any more. What you handed in before counts."
      NEVER_OPEN = "This question isn't open. Wait for your teacher."
      SAVE_ID = /\A\h{8}(?:-\h{4}){3}-\h{12}\z/
      BAD = "That save could not be read. Reload the page."

      # @param seat [Hash] :id and :session_id
      # @param lesson [Core::Lesson] the session's frozen lesson
      # @param message [Hash] "slide", "fields", "final", "save_no", "save_id"
      # @return [Reply]
      def call(seat, lesson, message)
        return refused(BAD) unless message.is_a?(Hash)

        save_no, save_id = message.values_at("save_no", "save_id")
        return refused(BAD) unless save_no.is_a?(Integer) && save_no.between?(1, (2**31) - 1)
        return refused(BAD) unless save_id.is_a?(String) && save_id.match?(SAVE_ID)

        prompt = lesson.slide(message["slide"])&.prompt
        return refused("That slide asks nothing. Reload the page.") unless prompt

        reading = prompt.read(message["fields"])
        return refused(reading.reason) unless reading.ok?

        save(seat, message["slide"], prompt, reading.value, message["final"] == true, save_no, save_id)
      end

      private

      def refused(message, save_no = nil) = Reply.new(state: "refused", message: message, save_no: save_no).freeze

      def save(seat, slide_id, prompt, value, final, save_no, save_id)
        answers = Store::Answers.new
        saved = answers.save(session_id: seat[:session_id], seat_id: seat[:id], slide_id: slide_id, value: value,
                             final: final, keyed: prompt.keyed?, may_change: prompt.may_change, save_no: save_no,
                             save_id: save_id)
        return accepted(saved, save_no) if saved

        stored = answers.stored(seat[:id], slide_id)
        return refused(NEVER_OPEN) unless stored
        return accepted(stored, save_no) if stored.save_id == save_id
        return Reply.new(state: "behind", save_no: stored.save_no).freeze if stored.save_no >= save_no

        refused(SETTLED, stored.save_no)
      end

      def accepted(saved, save_no)
        state = if saved.late
                  "late"
                else
                  (saved.final ? "final" : "draft")
                end
        Reply.new(state: state, save_no: save_no).freeze
      end
    end
  end
end
