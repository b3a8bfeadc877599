# frozen_string_literal: true

module Roost
  module Store
    # What students note for themselves, a row a seat and slide.
    class Notes < Repository
      # save_no, save_id, writer:: of the save that stands, as those of answers (Answers#save_all)
      Kept = Struct.new(:slide_id, :text, :save_no, :save_id, :writer, keyword_init: true)

      # What one window wrote replaces what another did only where it was written over it.
      # @param given [Hash] :text, :save_no, :save_id and :writer
      # @param over [Array<String>] ids of the saves it was written over
      # @return [String, nil] the id of the slide; nil where something else stands
      def save(seat_id, slide_id, over:, **given)
        excluded = %i[text save_no save_id writer].to_h { |name| [name, Sequel[:excluded][name]] }
        own = Sequel.|({ Sequel[:notes][:writer] => Sequel[:excluded][:writer] }, { Sequel[:notes][:save_id] => over })
        newer = Sequel[:excluded][:save_no] > Sequel[:notes][:save_no]
        database[:notes].returning(:slide_id)
                        .insert_conflict(target: %i[seat_id slide_id], update_where: Sequel.&(newer, own),
                                         update: { **excluded, noted_at: Sequel.function(:clock_timestamp) })
                        .insert(seat_id: seat_id, slide_id: slide_id, **given).first&.fetch(:slide_id)
      end

      # @return [Hash{String=>Kept}] by slide
      def of_seat(seat_id)
        database[:notes].where(seat_id: seat_id).select(*Kept.members).as_hash(:slide_id).transform_values do |row|
          Kept.new(**row).freeze
        end
      end
    end
  end
end
