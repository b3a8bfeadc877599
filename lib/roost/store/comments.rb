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
      # @return [Hash{Array(Integer, String)=>Core::Session::Comments}] by seat and slide, the latest first
      def of(seat_ids)
        rows = database[:comments].where(seat_id: seat_ids).reverse(:written_at).select(:seat_id, :slide_id, :attempt, :text).all
        rows.group_by { |row| row.values_at(:seat_id, :slide_id) }
            .transform_values { |all| Core::Session::Comments.new(all.to_h { |row| row.values_at(:attempt, :text) }) }
      end
    end
  end
end
