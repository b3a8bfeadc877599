# frozen_string_literal: true

module Roost
  module Operations
    # Saves what a seat has so far, as a draft or handed in. Lean on purpose: the
    # frozen lesson and the seat come from memory, one statement does the rest.
    class SaveAnswer
      # What the device is told. `state` is "draft", "final", "late", "empty" (kept, but there is
      # nothing to hand in), "unread" (kept as typed, but it is no answer), "refused" (keep the
      # text, stop sending) or "behind" (send again above `save_no`). `message` says what to do,
      # `understood` what was made of it.
      Reply = Struct.new(:state, :message, :save_no, :understood, keyword_init: true)

      SETTLED = "This answer can't be changed any more. What you handed in before counts."
      NEVER_OPEN = "This question isn't open. Wait for your teacher."
      SAVE_ID = /\A\h{8}(?:-\h{4}){3}-\h{12}\z/
      BAD = "That save could not be read. Reload the page."

      # @param seat [Hash] :id and :session_id
      # @param lesson [Core::Lesson] the session's frozen lesson
      # @param message [Hash] "slide", "fields", "final", "save_no", "save_id"
      # @return [Reply]
      def call(seat, lesson, message)
        return refused(BAD) unless SaveAnswer.readable?(message)

        slide = lesson.slide(message["slide"])
        return refused("That slide asks nothing. Reload the page.") unless slide&.prompt

        reading = slide.prompt.read(message["fields"], SaveAnswer.names(seat, slide))
        typed = Core::Room::Typed.read(message["fields"]) unless reading.ok?
        return refused(reading.reason) unless reading.ok? || typed

        final = message["final"] == true
        empty = reading.ok? && slide.prompt.blank_answer?(reading.value)
        reply = save(seat, slide, message, value: reading.value, typed: typed, final: final && reading.ok? && !empty)
        said(reply, reading, slide.prompt, empty && final)
      end

      # Whether a message is one that a device sends.
      def self.readable?(message)
        return false unless message.is_a?(Hash)

        save_no, save_id = message.values_at("save_no", "save_id")
        save_no.is_a?(Integer) && save_no.between?(1, (2**31) - 1) && save_id.is_a?(String) && save_id.match?(SAVE_ID)
      end

      # @return [Core::Room::Handles] what the parts of a question are called at a seat
      def self.names(seat, slide)
        Core::Room::Handles.new(secret: Roost.settings.session_secret, session_id: seat[:session_id], seat_id: seat[:id],
                                slide: slide)
      end

      private

      def refused(message, save_no = nil) = Reply.new(state: "refused", message: message, save_no: save_no).freeze

      # The reply with what is to be said of what was read.
      def said(reply, reading, prompt, empty)
        return reply unless %w[draft final late].include?(reply.state)
        return Reply.new(**reply.to_h, state: "unread", message: reading.reason).freeze unless reading.ok?
        return Reply.new(**reply.to_h, state: "empty", message: prompt.missing).freeze if empty

        understood = prompt.understood(reading.value)
        understood ? Reply.new(**reply.to_h, understood: understood).freeze : reply
      end

      def save(seat, slide, message, **given)
        save_no, save_id = message.values_at("save_no", "save_id")
        answers = Store::Answers.new
        saved = answers.save(session_id: seat[:session_id], seat_id: seat[:id], slide_id: slide.id, keyed: slide.prompt.keyed?,
                             may_change: slide.prompt.may_change, save_no: save_no, save_id: save_id, **given)
        return accepted(saved, save_no) if saved

        stored = answers.stored(seat[:id], slide.id)
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
