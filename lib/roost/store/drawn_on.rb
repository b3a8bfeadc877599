# frozen_string_literal: true

module Roost
  module Store
    # What teachers drew over answers, a row a seat, slide, attempt and part (Core::Kinds::Display#drawn_parts).
    class DrawnOn < Repository
      # @param strokes [Array<Hash>] as Core::Drawing::Strokes reads them; none takes it back
      def put(session_id, seat_id, slide_id, attempt, part, strokes)
        answer = { seat_id: seat_id, slide_id: slide_id, attempt: attempt, part: part }
        return database[:drawn_on].where(answer).delete if strokes.empty?

        now = { strokes: Sequel.pg_jsonb(strokes), drawn_at: Sequel.function(:clock_timestamp) }
        database[:drawn_on].insert_conflict(target: answer.keys, update: now).insert(**answer, **now, session_id: session_id)
      end

      # @return [Array<Integer>] seats of whose answers to a question something is drawn over
      def seats(session_id, slide_id)
        database[:drawn_on].where(session_id: session_id, slide_id: slide_id).distinct.select_map(:seat_id)
      end

      # @param released [Boolean] only where students may see the marks of the question
      # @return [Hash{Array(String, Integer)=>Hash{String=>Array<Hash>}}] slide and attempt to part to strokes
      def of(session_id, seat_id, released: false)
        rows = database[:drawn_on].where(session_id: session_id, seat_id: seat_id)
        rows = rows.where(slide_id: HandMarks.new(database).released(session_id)) if released
        rows.order(:part).all.group_by { |row| row.values_at(:slide_id, :attempt) }.transform_values do |parts|
          parts.to_h { |row| [row[:part], row[:strokes].to_a.map(&:to_h)] }
        end
      end
    end
  end
end
