# frozen_string_literal: true

module Roost
  module Store
    # Sittings, and the visits to their slides: one student going through slides at their own speed.
    class Sittings < Repository
      # A sitting as it is kept.
      Kept = Struct.new(:id, :session_id, :seat_id, :section_id, :sitting, keyword_init: true)

      TIMES = %i[started_at deadline window_ends_at handed_in_at].freeze

      # @param sitting [Core::Session::Sitting] that begins
      # @return [Integer, nil] its id; nil when that attempt has begun already
      def create(session_id, seat_id, section_id, sitting)
        database[:sittings].insert_conflict.insert(session_id: session_id, seat_id: seat_id, section_id: section_id.to_s,
                                                   **columns(sitting))
      end

      # @param lock [Boolean] within a transaction: nobody else changes it meanwhile
      # @return [Kept, nil]
      def find(id, lock: false)
        dataset = rows.where(id: id)
        row = (lock ? dataset.for_update : dataset).first
        row && kept(row)
      end

      # @return [Array<Kept>] of a seat and section, in order of attempts
      def of_seat(seat_id, section_id)
        rows.where(seat_id: seat_id, section_id: section_id.to_s).order(:attempt).map { |row| kept(row) }
      end

      # @return [Array<Kept>] of a session, for the teacher
      def of(session_id) = rows.where(session_id: session_id).order(:seat_id, :section_id, :attempt).map { |row| kept(row) }

      def update(id, sitting) = database[:sittings].where(id: id).update(columns(sitting))

      # The student has a slide before them from now on: the visit before ends.
      def visit(id, slide_id)
        now = Sequel.function(:clock_timestamp)
        transaction do
          database[:visits].where(sitting_id: id, ended_at: nil).update(ended_at: now)
          database[:visits].insert(sitting_id: id, slide_id: slide_id, began_at: now, seen_at: now)
        end
      end

      # A sign of life.
      def seen(id) = database[:visits].where(sitting_id: id, ended_at: nil).update(seen_at: Sequel.function(:clock_timestamp))

      # @return [Array<Core::Session::Visit>] in order
      def visits(id)
        times = %i[began_at seen_at ended_at].map { |name| Repository.epoch(name).as(name) }
        database[:visits].where(sitting_id: id).order(:id).select(:slide_id, *times)
                         .map { |row| Core::Session::Visit.new(**row).freeze }
      end

      private

      def rows
        times = TIMES.map { |name| Repository.epoch(name).as(name) }
        database[:sittings].select(:id, :session_id, :seat_id, :section_id, :attempt, :slides, :place, :first_open, :last_open,
                                   :rules, *times)
      end

      def kept(row)
        own = row.slice(:id, :session_id, :seat_id, :section_id)
        sitting = Core::Session::Sitting.new(**row.except(*own.keys), slides: row[:slides].to_a.freeze,
                                                                      rules: row[:rules].to_h.freeze)
        Kept.new(**own, sitting: sitting.freeze).freeze
      end

      def columns(sitting)
        times = TIMES.to_h { |name| [name, sitting[name] && Sequel.function(:to_timestamp, sitting[name])] }
        { attempt: sitting.attempt, place: sitting.place, first_open: sitting.first_open, last_open: sitting.last_open,
          slides: Sequel.pg_array(sitting.slides, :text), rules: Sequel.pg_jsonb(sitting.rules), **times }
      end
    end
  end
end
