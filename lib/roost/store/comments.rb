# frozen_string_literal: true

module Roost
  module Store
    # What teachers write to students about single answers, a row a seat, slide and attempt.
    class Comments < Repository
      # @param text [String] "" takes it back
      def write(seat_id, slide_id, text, attempt: 1)
        answer = { seat_id: seat_id, slide_id: slide_id, attempt: attempt }
        return database[:comments].where(answer).delete if text.empty?

        update = { text: text, written_at: Sequel.function(:clock_timestamp) }
        database[:comments].insert_conflict(target: answer.keys, update: update).insert(**answer, text: text)
      end

      # @param seat_ids [Array<Integer>]
      # @param told [Boolean] without those that wait for the marks of their question
      # @return [Hash{Array(Integer, String)=>Core::Session::Comments}] by seat and slide, the latest first
      def of(seat_ids, told: false)
        rows = database[:comments].where(seat_id: seat_ids).reverse(:written_at)
        rows = rows.exclude(marks_not_released.exists) if told
        rows.select(:seat_id, :slide_id, :attempt, :text).all.group_by { |row| row.values_at(:seat_id, :slide_id) }
            .transform_values { |all| Core::Session::Comments.new(all.to_h { |row| row.values_at(:attempt, :text) }) }
      end

      private

      # Marks by hand of the question of a comment, which students may not see.
      def marks_not_released
        session = database[:seats].where(id: Sequel[:comments][:seat_id]).select(:session_id)
        question = { session_id: Sequel[:hand_marks][:session_id], slide_id: Sequel[:hand_marks][:slide_id] }
        database[:hand_marks].where(session_id: session, slide_id: Sequel[:comments][:slide_id])
                             .exclude(database[:released_marks].where(question).select(1).exists).select(1)
      end
    end
  end
end
