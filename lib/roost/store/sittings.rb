# frozen_string_literal: true

module Roost
  module Store
    # Sittings, and the visits to their slides: one student going through slides at their own speed.
    class Sittings < Repository
      # A sitting as it is kept.
      Kept = Struct.new(:id, :session_id, :seat_id, :section_id, :sitting, keyword_init: true)

      TIMES = %i[started_at deadline window_ends_at handed_in_at].freeze
      NOW = Sequel.function(:clock_timestamp)
      # One statement, so that a move costs one way to the database.
      MOVE = <<~SQL
        WITH given AS (SELECT ?::bigint AS id, ?::int AS was, ?::text AS slide_id, ?::int AS attempt, ?::int AS place,
                              ?::int AS first_open, ?::int AS last_open, clock_timestamp() AS now),
        moved AS (
          UPDATE sittings
          SET place = given.place, first_open = given.first_open, last_open = given.last_open, moved_at = given.now,
              seen = CASE WHEN given.slide_id = ANY (sittings.seen) THEN sittings.seen
                          ELSE array_append(sittings.seen, given.slide_id) END
          FROM given WHERE sittings.id = given.id AND sittings.place = given.was AND sittings.handed_in_at IS NULL
          RETURNING sittings.id, sittings.session_id, sittings.seat_id, sittings.seen, date_part('epoch', given.now) AS moved_at,
                    given.now, given.slide_id, given.attempt
        ),
        ended AS (UPDATE visits SET ended_at = moved.now FROM moved WHERE visits.sitting_id = moved.id AND visits.ended_at IS NULL),
        began AS (INSERT INTO visits (sitting_id, slide_id, began_at, seen_at) SELECT id, slide_id, now, now FROM moved),
        shown AS (INSERT INTO deliveries (session_id, seat_id, slide_id, attempt)
                  SELECT session_id, seat_id, slide_id, attempt FROM moved ON CONFLICT DO NOTHING)
        SELECT seen, moved_at FROM moved
      SQL
      private_constant :NOW, :MOVE

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

      # @return [Array<Kept>] of a seat, in all sections, in order of attempts
      def all_of_seat(seat_id) = rows.where(seat_id: seat_id).order(:attempt, :id).map { |row| kept(row) }

      # @return [Kept, nil] that a seat began last
      def latest_of_seat(seat_id) = rows.where(seat_id: seat_id).reverse(:id).first&.then { |row| kept(row) }

      # @param since [Float] only those in which something has changed since, epoch seconds
      # @return [Array<Kept>] in a section of a session, for the teacher, in order of attempts
      def of(session_id, section_id, since: 0.0)
        rows.where(session_id: session_id, section_id: section_id).where { moved_at >= Sequel.function(:to_timestamp, since) }
            .order(:attempt).map { |row| kept(row) }
      end

      # Those of a session that are over: handed in, out of time, or the session is.
      # @param all [Boolean] whether the session has ended
      # @param seat_id [Integer, nil] only of this seat
      # @return [Array<Hash>] of :seat_id, :section_id, :attempt and :slides
      def over(session_id, all:, seat_id: nil)
        found = database[:sittings].where({ session_id: session_id, seat_id: seat_id }.compact)
        unless all
          ends = Sequel.function(:least, :deadline, :window_ends_at)
          found = found.where(Sequel.|(Sequel.~(handed_in_at: nil), ends < NOW))
        end
        found.select(:seat_id, :section_id, :attempt, :slides).order(:attempt).all
      end

      def update(id, sitting) = database[:sittings].where(id: id).update(moved_at: NOW, **columns(sitting))

      # The student has the slide of a place before them from now on: the visit before ends, the question there was shown.
      # @param before [Kept] as it was read
      # @param sitting [Core::Session::Sitting] at that place
      # @return [Kept, nil] nil when it was handed in or moved on meanwhile
      def move(before, sitting)
        given = { id: before.id, was: before.sitting.place, slide: sitting.slide_id, attempt: sitting.attempt,
                  place: sitting.place, first_open: sitting.first_open, last_open: sitting.last_open }
        moved = prepared(:move_sitting) { database[MOVE, *given.keys.map { |name| :"$#{name}" }] }.call(**given).first
        moved && Kept.new(**before.to_h, sitting: sitting.kept(seen: moved[:seen].to_a.freeze, moved_at: moved[:moved_at]))
      end

      # It goes on as if it had not been handed in.
      def not_handed_in(id) = database[:sittings].where(id: id).update(handed_in_at: nil, moved_at: NOW)

      # Those at work in a quiz have until then, or as long as they like (nil).
      # @param ends_at [Float, nil]
      def end_all(session_id, section_id, ends_at)
        at_work(session_id, section_id)
          .update(window_ends_at: ends_at && Sequel.function(:to_timestamp, ends_at), moved_at: NOW)
      end

      # The latest of a seat goes on until then, also when it was handed in.
      # @param ends_at [Float] epoch seconds
      def reopen(seat_id, ends_at)
        ends = Sequel.function(:to_timestamp, ends_at)
        over = Sequel[:deadline] < NOW
        database[:sittings].where(id: database[:sittings].where(seat_id: seat_id).select { max(id) })
                           .update(handed_in_at: nil, window_ends_at: ends, moved_at: NOW,
                                   deadline: Sequel.case({ over => ends }, :deadline))
      end

      # @return [Hash{Integer=>Integer}] session id to how many seats have handed in
      def handed_in(session_ids)
        database[:sittings].where(session_id: session_ids, section_id: "").exclude(handed_in_at: nil)
                           .group(:session_id).select(:session_id, Sequel.function(:count, :seat_id).distinct.as(:many))
                           .as_hash(:session_id, :many)
      end

      # @return [Hash{Integer=>Float}] seat id to the seconds spent, over all attempts in a section
      def spent(session_id, section_id, now)
        times = %i[began_at seen_at ended_at].map { |name| Repository.epoch(Sequel[:visits][name]).as(name) }
        database[:visits].join(:sittings, id: :sitting_id).where(session_id: session_id, section_id: section_id)
                         .select(:seat_id, :slide_id, *times).all.group_by { |row| row[:seat_id] }
                         .transform_values do |rows|
          rows.sum { |row| Core::Session::Visit.new(**row.except(:seat_id)).lasted(now) }
        end
      end

      # Those at work in an assignment have until then, or as long as they are allowed.
      # @param ends_at [Float] epoch seconds
      def end_assignment(session_id, ends_at)
        allowed = database[:allowances].where(seat_id: Sequel[:sittings][:seat_id]).select(:closes_at)
        latest = Sequel.function(:greatest, Sequel.function(:to_timestamp, ends_at), allowed)
        at_work(session_id, "").update(window_ends_at: latest, moved_at: NOW)
      end

      # @param seat_id [Integer, nil] of one; nil gives them to all who are at work
      def give_time(session_id, section_id, seconds, seat_id: nil)
        theirs = at_work(session_id, section_id)
        theirs = theirs.where(seat_id: seat_id) if seat_id
        theirs.exclude(deadline: nil)
              .update(deadline: Sequel.lit("deadline + make_interval(secs => ?)", seconds), moved_at: NOW)
      end

      # A sign of life.
      def seen(id) = database[:visits].where(sitting_id: id, ended_at: nil).update(seen_at: NOW)

      # @return [Array<Core::Session::Visit>] in order
      def visits(id)
        times = %i[began_at seen_at ended_at].map { |name| Repository.epoch(name).as(name) }
        database[:visits].where(sitting_id: id).order(:id).select(:slide_id, *times)
                         .map { |row| Core::Session::Visit.new(**row).freeze }
      end

      private

      def at_work(session_id, section_id)
        database[:sittings].where(session_id: session_id, section_id: section_id, handed_in_at: nil)
      end

      def rows
        times = [*TIMES, :moved_at].map { |name| Repository.epoch(name).as(name) }
        database[:sittings].select(:id, :session_id, :seat_id, :section_id, :attempt, :slides, :place, :first_open, :last_open,
                                   :rules, :seen, *times)
      end

      def kept(row)
        own = row.slice(:id, :session_id, :seat_id, :section_id)
        lists = row.slice(:slides, :seen).transform_values { |each| each.to_a.freeze }
        sitting = Core::Session::Sitting.new(**row.except(*own.keys), **lists, rules: row[:rules].to_h.freeze)
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
