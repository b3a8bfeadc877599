# frozen_string_literal: true

module Roost
  module Store
    # Answers: one row a seat, slide and attempt. A save never locks the session; one
    # statement decides by the database clock whether it still counts.
    class Answers < Repository
      # What became of a save.
      #
      # kept::  true when the value is stored (or already was)
      # late::  it came after answering had ended, and not for the line's sake
      # final:: it is handed in
      Saved = Struct.new(:kept, :late, :final, keyword_init: true)
      Stored = Struct.new(:id, :save_no, :save_id, :writer, :final, :late, keyword_init: true)
      # What is known of a save that did not come in time, see Core::Room::LineDelay.
      Lateness = Struct.new(:now, :ended, :sent_at, :line, keyword_init: true)

      # Late saves are taken until this long after the session's end, in seconds.
      LATEST = 3600

      # `on_time` holds while answering is open and for the grace after it. A late save
      # fills a blank or an unmarked draft, and never replaces what counts already. What can't be
      # read as an answer replaces none that was handed in. What one window wrote replaces what
      # another did only where it was written over it.
      SAVE = <<~SQL
        INSERT INTO answers (session_id, seat_id, slide_id, value, typed, final, late, by_line, save_no, save_id, writer, received_at)
        SELECT room.id, :seat_id, :slide_id, :value::jsonb, :typed::jsonb, :final, NOT room.on_time, :by_line, :save_no,
               :save_id::uuid, :writer::uuid, room.now
        FROM (SELECT id, clock.now, date_part('epoch', clock.now) <=
                       COALESCE((run->>'closed_at')::float8, (run->>'deadline')::float8, 'infinity') + :grace AS on_time
              FROM (SELECT id, options, ended_at, state->'runs'->:slide_id AS run FROM sessions
                    WHERE id = :session_id AND deleted_at IS NULL) AS session,
                   (SELECT clock_timestamp() AS now) AS clock
              WHERE run IS NOT NULL
                AND (ended_at IS NULL OR clock.now < ended_at + make_interval(secs => :latest))) AS room
        WHERE room.on_time OR NOT :in_time_only
        ON CONFLICT (seat_id, slide_id, attempt) DO UPDATE
          SET value = excluded.value, typed = excluded.typed, final = excluded.final, late = excluded.late, save_no = excluded.save_no,
              by_line = excluded.by_line, save_id = excluded.save_id, writer = excluded.writer, received_at = excluded.received_at,
              seq = nextval('answers_seq')
          WHERE excluded.save_no > answers.save_no AND (excluded.typed IS NULL OR NOT answers.final)
            AND (COALESCE(answers.writer = excluded.writer, true) OR answers.save_id = ANY(:over::uuid[]))
            AND CASE WHEN excluded.late THEN NOT answers.final AND (answers.late OR NOT :keyed)
                     ELSE NOT answers.final
                       OR COALESCE(:may_change::boolean, (SELECT COALESCE((options->>'may_change')::boolean, true)
                                                          FROM sessions WHERE id = :session_id)) END
        RETURNING final, late
      SQL

      LATENESS = <<~SQL
        SELECT date_part('epoch', clock_timestamp()) AS now, seats.round_trip,
               date_part('epoch', seats.heard_at) AS heard_at, date_part('epoch', seats.asked_at) AS asked_at,
               date_part('epoch', seats.bad_from) AS bad_from, date_part('epoch', seats.bad_until) AS bad_until,
               date_part('epoch', deliveries.sent_at) AS sent_at,
               COALESCE((run->>'closed_at')::float8, (run->>'deadline')::float8) AS ended
        FROM (SELECT id, state->'runs'->:slide_id AS run FROM sessions WHERE id = :session_id) AS session
        JOIN seats ON seats.session_id = session.id AND seats.id = :seat_id
        LEFT JOIN deliveries ON deliveries.seat_id = seats.id AND deliveries.slide_id = :slide_id
      SQL

      # @param given [Hash] :session_id, :seat_id, :slide_id, :final, :keyed, :save_no and :save_id:
      #   save_no rises with every save of this device; save_id is the UUID of this save: the same
      #   again is the same save
      # @param value [Hash, nil] as the prompt's kind read it; nil where it could not
      # @param typed [Hash, nil] then, what was sent: field to texts
      # @param may_change [Boolean, nil] what the question says of it; nil: as the session says
      # @param writer [String, nil] UUID of the window it was written in
      # @param over [Array<String>] ids of the saves it was written over
      # @param in_time_only [Boolean] whether to store nothing when it is late
      # @param by_line [Boolean] whether it is late for the line's sake, and counts
      # @return [Saved, nil] nil when nothing was stored; #stored says what stands
      def save(value:, typed: nil, may_change: nil, writer: nil, over: [], in_time_only: false, by_line: false, **given)
        grace = by_line ? Core::Room::LineDelay::MOST : Core::Room::Run::GRACE
        row = database[SAVE, { **given, value: JSON.generate(value || {}), typed: typed && JSON.generate(typed), writer: writer,
                                        over: "{#{over.join(",")}}", in_time_only: in_time_only, by_line: by_line,
                                        may_change: may_change, grace: grace, latest: LATEST }].first
        row && Saved.new(kept: true, late: row[:late], final: row[:final]).freeze
      end

      # @return [Stored, nil]
      def stored(seat_id, slide_id)
        row = row_of(seat_id, slide_id).select(:id, :save_no, :save_id, :writer, :final, :late).first
        row && Stored.new(**row).freeze
      end

      # Keeps what another window wrote beside what counts.
      # @param typed [Hash{String=>Array<String>}]
      def keep_beside(id, typed)
        database[:answers].where(id: id).update(beside: Sequel.pg_jsonb(typed), seq: Sequel.function(:nextval, "answers_seq"))
      end

      # @return [Lateness, nil] nil unless answering has ended
      def lateness(session_id, seat_id, slide_id)
        row = database[LATENESS, { session_id: session_id, seat_id: seat_id, slide_id: slide_id }].first
        return nil unless row&.fetch(:ended)

        line = Core::Room::LineDelay::Line.new(**row.slice(*Core::Room::LineDelay::Line.members)).freeze
        Lateness.new(**row.slice(:now, :ended, :sent_at), line: line).freeze
      end

      # @param beyond [Integer] only rows with a higher seq: what changed since
      # @param seat_id [Integer, nil] only of this seat
      # @return [Array<Array(Integer, Core::Room::Answer)>] seq and answer, in order of seq
      def of(session_id, beyond: 0, seat_id: nil)
        database[:answers].where({ session_id: session_id, seat_id: seat_id }.compact).where { seq > beyond }.order(:seq)
                          .select(:seq, :seat_id, :slide_id, :value, :typed, :final, :late, :by_line, :beside, :save_id,
                                  Sequel[:id].as(:arrival), Repository.epoch(:received_at).as(:received_at)).map do |row|
          documents = row.slice(:value, :typed, :beside).transform_values { |each| each&.to_h }
          [row.delete(:seq), Core::Room::Answer.new(**row, **documents).freeze]
        end
      end

      # When each seat's device was first sent the open prompt of a slide.
      # @param since [Float] only what was sent then or later, epoch seconds
      # @param among [Hash] what is known already, and is added to
      # @param seat_id [Integer, nil] only to this seat
      # @return [Hash{String=>Hash{Integer=>Float}}] slide id to seat id to epoch seconds
      def deliveries(session_id, since: 0.0, among: {}, seat_id: nil)
        sent = Repository.epoch(:sent_at)
        database[:deliveries].where({ session_id: session_id, seat_id: seat_id }.compact).where(sent >= since)
                             .select(:seat_id, :slide_id, sent.as(:sent_at))
                             .each_with_object(among) do |row, shown|
          (shown[row[:slide_id]] ||= {})[row[:seat_id]] = row[:sent_at]
        end
      end

      def seats_answered(session_id, slide_id)
        database[:answers].where(session_id: session_id, slide_id: slide_id).select_map(:seat_id)
      end

      def seats_shown(session_id, slide_id)
        database[:deliveries].where(session_id: session_id, slide_id: slide_id).select_map(:seat_id)
      end

      # @return [Hash, nil] the value one seat sent for one slide, where it can be read
      def value(session_id, slide_id, seat_id)
        row_of(seat_id, slide_id).where(session_id: session_id, typed: nil).get(:value)&.to_h
      end

      # Puts a delivery back in time, for demo data: it was sent so long before its answer came.
      def backdate_delivery(seat_id, slide_id, seconds)
        came = database[:answers].where(seat_id: seat_id, slide_id: slide_id).select(:received_at)
        database[:deliveries].where(seat_id: seat_id, slide_id: slide_id)
                             .update(sent_at: Sequel.lit("? - make_interval(secs => ?)", came, seconds))
      end

      # Notes that the open prompt was sent; the first time is the one that counts.
      def delivered(session_id, slide_id, seat_ids)
        rows = seat_ids.map { |seat_id| [session_id, seat_id, slide_id] }
        database[:deliveries].insert_conflict.import(%i[session_id seat_id slide_id], rows)
      end

      private

      # The row of the latest attempt.
      def row_of(seat_id, slide_id) = database[:answers].where(seat_id: seat_id, slide_id: slide_id).reverse(:attempt)
    end
  end
end
