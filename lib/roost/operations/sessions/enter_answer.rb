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

        lesson = Store::Sessions.new.lesson_of(row)
        slide = lesson.slide(row.state.slide_id)
        return Core::Reading.refused(NO_QUESTION) unless row.state.live? && slide&.prompt && row.state.opening

        seat = Store::Seats.new.of(row.id, seat_id: seat_id).first
        return Core::Reading.refused(NOT_AT_BOARD) unless seat&.board

        entered = keys ? answer(row, lesson, slide, seat, keys) : mark(row, slide, seat, mark, account_id)
        entered.map { |what| what.tap { Live::Bus.announce(row.id, keys ? :answers : :people) } }
      end

      private

      def answer(row, lesson, slide, seat, keys)
        fields = slide.prompt.keypad_takes == :letters ? slide.prompt.keypad(keys.to_s[0, 40]) : nil
        return Core::Reading.refused(NO_SUCH) unless fields

        attempt = row.state.facts.attempt(slide.id)
        before = Store::Answers.new.stored(seat.id, slide.id, attempt)
        said = { "slide" => slide.id, "attempt" => attempt, "fields" => fields, "final" => true,
                 "save_no" => before&.save_no.to_i + 1, "save_id" => SecureRandom.uuid }
        reply = SaveAnswer.new(entered: true).call({ id: seat.id, session_id: row.id }, lesson, said)
        return Core::Reading.refused(reply.message) if reply.state == "refused"

        # Touched or said in time, though entered later.
        Store::Answers.new.let_count(row.id, slide.id, true, seat_id: seat.id) if reply.state == "late"
        Core::Reading.ok(keys)
      end

      def mark(row, slide, seat, mark, account_id)
        return Core::Reading.refused(NO_SUCH) unless MARKS.key?(mark)

        given = MARKS.fetch(mark)&.then { |each| Core::Grading::HandMark.new(mark: each, levels: nil).freeze }
        Store::HandMarks.new.put(row.id, slide.id, { [seat.id, row.state.facts.attempt(slide.id)] => given },
                                 account_id: account_id)
        Core::Reading.ok(mark)
      end
    end
  end
end
