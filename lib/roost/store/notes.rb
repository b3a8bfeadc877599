# frozen_string_literal: true

module Roost
  module Store
    # What students note for themselves, a row a seat, slide and attempt at it.
    class Notes < Repository
      # save_no, save_id, writer:: of the save that stands, as those of answers (Answers#save_all)
      Kept = Struct.new(:slide_id, :attempt, :text, :save_no, :save_id, :writer, keyword_init: true)

      # What one window wrote replaces what another did only where it was written over it.
      # @param given [Hash] :text, :save_no, :save_id and :writer
      # @param over [Array<String>] ids of the saves it was written over
      # @return [String, nil] the id of the slide; nil where something else stands
      def save(seat_id, slide_id, over:, attempt: 1, **given)
        excluded = %i[text save_no save_id writer].to_h { |name| [name, Sequel[:excluded][name]] }
        own = Sequel.|({ Sequel[:notes][:writer] => Sequel[:excluded][:writer] }, { Sequel[:notes][:save_id] => over })
        newer = Sequel[:excluded][:save_no] > Sequel[:notes][:save_no]
        database[:notes].returning(:slide_id)
                        .insert_conflict(target: %i[seat_id slide_id attempt], update_where: Sequel.&(newer, own),
                                         update: { **excluded, noted_at: Sequel.function(:clock_timestamp) })
                        .insert(seat_id: seat_id, slide_id: slide_id, attempt: attempt, **given).first&.fetch(:slide_id)
      end

      # @return [Hash{String=>Kept}] by slide; of several attempts the latest, which began with the text of the one before
      def of_seat(seat_id)
        all = database[:notes].where(seat_id: seat_id).order(:attempt).select(*Kept.members)
        all.as_hash(:slide_id).transform_values { |row| Kept.new(**row).freeze }
      end

      # @return [Kept, nil]
      def find(seat_id, slide_id, attempt)
        row = database[:notes].where(seat_id: seat_id, slide_id: slide_id, attempt: attempt).select(*Kept.members).first
        row && Kept.new(**row).freeze
      end
    end
  end
end
