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

      # Bytes of what is kept as it was typed.
      MOST_TYPED = 10_000

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

        slide = lesson.slide(message["slide"])
        prompt = slide&.prompt
        return refused("That slide asks nothing. Reload the page.") unless prompt

        reading = prompt.read(message["fields"], SaveAnswer.names(seat, slide))
        typed = SaveAnswer.typed(message["fields"]) unless reading.ok?
        return refused(reading.reason) unless reading.ok? || typed

        empty = reading.ok? && message["final"] == true && prompt.blank_answer?(reading.value)
        final = message["final"] == true && reading.ok? && !empty
        reply = save(seat, slide, reading.value, final, save_no, save_id, typed)
        said(reply, reading, prompt, empty)
      end

      # What was sent, as far as it can be kept: field to texts.
      # @param fields anything
      # @return [Hash{String=>Array<String>}, nil]
      def self.typed(fields)
        return nil unless fields.is_a?(Hash) && fields.length <= 40

        texts = fields.map { |name, values| [name, Array(values).first(10)] }
        return nil unless texts.all? { |name, values| name.length <= 40 && values.all?(String) }
        return nil if texts.sum { |_, values| values.sum(&:bytesize) } > MOST_TYPED

        read = texts.to_h do |name, values|
          [name, values.map { |text| Core::Text.read(text, limit: MOST_TYPED, what: "It").value.to_s }]
        end
        read if read.values.flatten.any? { |text| !text.empty? }
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

      def save(seat, slide, value, final, save_no, save_id, typed)
        answers = Store::Answers.new
        saved = answers.save(session_id: seat[:session_id], seat_id: seat[:id], slide_id: slide.id, value: value, typed: typed,
                             final: final, keyed: slide.prompt.keyed?, may_change: slide.prompt.may_change, save_no: save_no,
                             save_id: save_id)
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
