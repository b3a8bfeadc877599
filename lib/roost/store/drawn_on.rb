# frozen_string_literal: true

module Roost
  module Store
    # What teachers drew over answers that are drawings, a row a seat, slide and attempt.
    class DrawnOn < Repository
      # @param strokes [Array<Hash>] as Core::Drawing::Strokes reads them; none takes it back
      def put(session_id, seat_id, slide_id, attempt, strokes)
        answer = { seat_id: seat_id, slide_id: slide_id, attempt: attempt }
        return database[:drawn_on].where(answer).delete if strokes.empty?

        now = { strokes: Sequel.pg_jsonb(strokes), drawn_at: Sequel.function(:clock_timestamp) }
        database[:drawn_on].insert_conflict(target: answer.keys, update: now).insert(**answer, **now, session_id: session_id)
      end

      # @param released [Boolean] only where students may see the marks of the question
      # @return [Hash{Array(String, Integer)=>Array<Hash>}] slide and attempt to strokes
      def of(session_id, seat_id, released: false)
        rows = database[:drawn_on].where(session_id: session_id, seat_id: seat_id)
        rows = rows.where(slide_id: HandMarks.new(database).released(session_id)) if released
        rows.to_h { |row| [row.values_at(:slide_id, :attempt), row[:strokes].to_a.map(&:to_h)] }
      end
    end
  end
end
