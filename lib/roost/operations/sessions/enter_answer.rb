# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # The teacher enters what a team at the board answers to the present question: the letter it chose or touched, or, where a
    # question has no letters, how right it was.
    class EnterAnswer
      NO_QUESTION = "No question is open. Open answers first."
      NOT_AT_BOARD = "That team has a device of its own."
      NO_SUCH = "That isn't one of the answers. Reload the page."
      MARKS = { "right" => 1r, "part" => 1/2r, "wrong" => 0r, "" => nil }.freeze

      # @param keys [String, nil] letters
      # @param mark [String, nil] one of MARKS, where there are no letters; "" takes it back
      # @return [Core::Reading, nil] of what was entered; nil when she has no such session
      def call(account_id, session_id, seat_id, keys: nil, mark: nil)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil if row.nil? || row.deleted

        slide = open_question(row)
        return Core::Reading.refused(NO_QUESTION) unless slide

        seat = Store::Seats.new.of(row.id, seat_id: seat_id).first
        return Core::Reading.refused(NOT_AT_BOARD) unless seat&.board

        entered = keys ? answer(row, slide, seat, keys) : mark(row, slide, seat, mark)
        entered.map { |what| what.tap { Live::Bus.announce(row.id, keys ? :answers : :people) } }
      end

      private

      # @return [Core::Slide, nil] with the present question, that is open or was
      def open_question(row)
        return nil unless row.state.live? && row.state.opening

        slide = Store::Sessions.new.lesson_of(row).slide(row.state.slide_id)
        slide if slide&.prompt
      end

      def answer(row, slide, seat, keys)
        fields = slide.prompt.keypad_takes == :letters ? slide.prompt.keypad(keys.to_s[0, 40]) : nil
        return Core::Reading.refused(NO_SUCH) unless fields

        attempt = row.state.facts.attempt(slide.id)
        before = Store::Answers.new.stored(seat.id, slide.id, attempt)
        said = { "slide" => slide.id, "attempt" => attempt, "fields" => fields, "final" => true,
                 "save_no" => before&.save_no.to_i + 1, "save_id" => SecureRandom.uuid }
        reply = SaveAnswer.new(entered: true).call({ id: seat.id, session_id: row.id }, Store::Sessions.new.lesson_of(row), said)
        return Core::Reading.refused(reply.message) if reply.state == "refused"

        # Touched or said in time, though entered later.
        Store::Answers.new.let_count(row.id, slide.id, true, seat_id: seat.id) if reply.state == "late"
        Core::Reading.ok(keys)
      end

      def mark(row, slide, seat, mark)
        return Core::Reading.refused(NO_SUCH) unless MARKS.key?(mark)

        given = MARKS.fetch(mark)&.then { |each| Core::Grading::HandMark.new(mark: each, levels: nil).freeze }
        attempt = row.state.facts.attempt(slide.id)
        Store::HandMarks.new.put(row.id, slide.id, { [seat.id, attempt] => given }, account_id: row.account_id)
        Core::Reading.ok(mark)
      end
    end
  end
end
