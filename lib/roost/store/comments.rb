# frozen_string_literal: true

module Roost
  module Store
    # What teachers write to students about single answers, a row a seat and slide.
    class Comments < Repository
      # @param text [String] "" takes it back
      def write(seat_id, slide_id, text)
        return database[:comments].where(seat_id: seat_id, slide_id: slide_id).delete if text.empty?

        update = { text: text, written_at: Sequel.function(:clock_timestamp) }
        database[:comments].insert_conflict(target: %i[seat_id slide_id], update: update)
                           .insert(seat_id: seat_id, slide_id: slide_id, text: text)
      end

      # @param seat_ids [Array<Integer>]
      # @return [Hash{Array(Integer, String)=>String}] seat and slide to text, the latest first
      def of(seat_ids)
        database[:comments].where(seat_id: seat_ids).reverse(:written_at)
                           .to_h { |row| [row.values_at(:seat_id, :slide_id), row[:text]] }
      end
    end
  end
end
