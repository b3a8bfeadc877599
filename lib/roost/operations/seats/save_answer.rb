# frozen_string_literal: true

module Roost
  module Operations
    # Saves what a seat has so far, as a draft or handed in. Lean on purpose: the
    # frozen lesson and the seat come from memory, one statement does the rest.
    class SaveAnswer
      # What the device is told. `state` is "draft", "final", "late", "empty" (kept, but there is
      # nothing to hand in), "unread" (kept as typed, but it is no answer), "refused" (keep the
      # text, stop sending), "behind" (send again above `save_no`) or "elsewhere" (another window of the
      # seat wrote something else; what was sent is kept beside it, and `saved` is what counts).
      # `message` says what to do, `understood` what was made of it.
      Reply = Struct.new(:state, :message, :save_no, :understood, :saved, keyword_init: true)

      SETTLED = "This answer can't be changed any more. What you handed in before counts."
      NEVER_OPEN = "This question isn't open. Wait for your teacher."
      SAVE_ID = /\A\h{8}(?:-\h{4}){3}-\h{12}\z/
      ELSEWHERE = "You wrote something else in another window, and that counts. What you wrote here is kept, too."
      MOST_OVER = 4
      BAD = "That save could not be read. Reload the page."

      # @param answers [#save] Store::Answers, or a queue in front of it
      # @param entered [Boolean] whether the teacher enters it for a team at the board: then it may always be changed
      def initialize(answers: Store::Answers.new, entered: false)
        @answers = answers
        @entered = entered
      end

      # @param seat [Hash] :id and :session_id
      # @param lesson [Core::Lesson] the session's frozen lesson
      # @param message [Hash] "slide", "attempt" (1 when it isn't said), "fields", "final", "save_no",
      #   "save_id"; "writer" (which window) and "over" (what it was written over); "elapsed" and "tries", see
      #   Core::Session::LineDelay
      # @return [Reply]
      def call(seat, lesson, message)
        return refused(BAD) unless SaveAnswer.readable?(message)

        slide = lesson.slide(message["slide"])
        return refused("That slide asks nothing. Reload the page.") unless slide&.prompt

        fields, sure = SaveAnswer.certainty_apart(message["fields"])
        message = message.merge("fields" => fields)
        reading = read(seat, lesson, slide, fields)
        typed = Core::Session::Typed.read(fields) unless reading.ok?
        return refused(reading.reason) unless reading.ok? || typed

        final = message["final"] == true
        empty = reading.ok? && slide.prompt.blank_answer?(reading.value)
        reply = save(seat, slide, message, value: reading.value, typed: typed, sure: sure, final: final && reading.ok? && !empty)
        said(reply, reading, slide.prompt, empty && final)
      end

      # How sure a student is goes with the answer, and is no part of it.
      # @return [Array(Object, Integer)] the rest, and 1 to 3 or nil
      def self.certainty_apart(fields)
        return [fields, nil] unless fields.is_a?(Hash) && fields.key?("certainty")

        sure = Integer(Array(fields["certainty"]).first.to_s, 10, exception: false)
        [fields.except("certainty"), (sure if (1..3).cover?(sure))]
      end

      # Whether a message is one that a device sends.
      def self.readable?(message)
        return false unless message.is_a?(Hash)

        attempt, save_no, save_id, writer, over = message.values_at("attempt", "save_no", "save_id", "writer", "over")
        [attempt || 1, save_no].all? { |number| counting?(number) } && [save_id, writer || save_id].all? { |each| id?(each) } &&
          over?(over || [])
      end

      # Whether what stands was written by another window, and not known to the one that wrote the message.
      # @param stored [#save_id, #writer]
      def self.other_window?(stored, message)
        !message["writer"].nil? && !stored.writer.nil? && stored.writer != message["writer"] &&
          !Array(message["over"]).include?(stored.save_id)
      end

      def self.over?(ids) = ids.is_a?(Array) && ids.length <= MOST_OVER && ids.all? { |each| id?(each) }

      def self.counting?(number) = number.is_a?(Integer) && number.between?(1, (2**31) - 1)

      def self.id?(text) = text.is_a?(String) && text.match?(SAVE_ID)
      private_class_method :id?, :counting?, :over?

      # @return [Core::Session::ItemIds] what the parts of a question are called at a seat
      def self.names(seat, slide)
        Core::Session::ItemIds.new(secret: Roost.settings.session_secret, session_id: seat[:session_id], seat_id: seat[:id],
                                   slide: slide)
      end

      private

      # @return [Core::Reading] of a value
      def read(seat, lesson, slide, fields)
        reading = slide.prompt.read(fields, SaveAnswer.names(seat, slide))
        reading.map { |value| HoldBack.new.call(slide.prompt, lesson, value) }
      end

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
        given = { session_id: seat[:session_id], seat_id: seat[:id], slide_id: slide.id, attempt: message["attempt"] || 1,
                  keyed: slide.prompt.keyed?, may_change: @entered || slide.prompt.may_change, entered: @entered,
                  save_no: message["save_no"], save_id: message["save_id"],
                  writer: message["writer"], over: message["over"] || [], **given }
        saved = in_time(message, given)
        saved ? accepted(saved, message["save_no"]) : not_stored(seat, slide, message)
      end

      # Where the device says that it was in time, it is first tried whether it is; and if not, looked
      # whether the line was why.
      def in_time(message, given)
        claim = Core::Session::LineDelay.claim(message)
        return @answers.save(**given) unless claim

        saved = @answers.save(**given, in_time_only: true)
        return saved if saved

        late = Store::Answers.new.lateness(*given.values_at(:session_id, :seat_id, :slide_id, :attempt))
        late && @answers.save(**given, by_line: Core::Session::LineDelay.excuses?(claim, **late.to_h))
      end

      def not_stored(seat, slide, message)
        stored = Store::Answers.new.stored(seat[:id], slide.id, message["attempt"] || 1)
        return refused(NEVER_OPEN) unless stored
        return accepted(stored, message["save_no"]) if stored.save_id == message["save_id"]
        return elsewhere(stored, message["fields"]) if SaveAnswer.other_window?(stored, message)
        return Reply.new(state: "behind", save_no: stored.save_no).freeze if stored.save_no >= message["save_no"]

        refused(SETTLED, stored.save_no)
      end

      def elsewhere(stored, fields)
        typed = Core::Session::Typed.read(fields)
        Store::Answers.new.keep_conflicting(stored.id, typed) if typed
        Reply.new(state: "elsewhere", message: ELSEWHERE, save_no: stored.save_no, saved: stored.save_id).freeze
      end

      def accepted(saved, save_no)
        handed_in = saved.final ? "final" : "draft"
        Reply.new(state: saved.late ? "late" : handed_in, save_no: save_no).freeze
      end
    end
  end
end
