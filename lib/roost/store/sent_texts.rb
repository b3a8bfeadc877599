# frozen_string_literal: true

module Roost
  module Store
    # Text that students sent their teacher as it was typed, since it could not be taken as an answer.
    class SentTexts < Repository
      # Whether a seat may send another.
      def room?(seat_id, most) = database[:sent_texts].where(seat_id: seat_id).count < most

      # The same text again is the same.
      def add(seat_id, slide_id, text)
        database[:sent_texts].insert_conflict.insert(seat_id: seat_id, slide_id: slide_id, text: text)
      end

      # @return [Hash{Array(Integer, String)=>Array<String>}] seat and slide to texts, the earliest first
      def of(seat_ids)
        database[:sent_texts].where(seat_id: seat_ids).order(:id).select(:seat_id, :slide_id, :text).all
                             .group_by { |row| row.values_at(:seat_id, :slide_id) }
                             .transform_values { |rows| rows.map { |row| row[:text] } }
      end
    end
  end
end
