# frozen_string_literal: true

module Roost
  module Store
    # Answers: one row a seat, slide and attempt. A save never locks the session; one
    # statement decides by the database clock whether it still counts, for as many saves as come together
    # (AnswerQueue).
    class Answers < Repository
      # What became of a save.
      #
      # late::  it came after answering had ended, and not for the line's sake
      # final:: it is handed in
      Saved = Struct.new(:late, :final, keyword_init: true)
      Stored = Struct.new(:id, :save_no, :save_id, :writer, :final, :late, keyword_init: true)
      # What is known of a save that did not come in time, see Core::Session::LineDelay.
      Lateness = Struct.new(:now, :ended, :sent_at, :line, keyword_init: true)

      # The columns of what is given, with their types.
      GIVEN = { session_id: "bigint", seat_id: "bigint", slide_id: "text", attempt: "int", value: "jsonb", typed: "jsonb",
                final: "boolean", keyed: "boolean", save_no: "int", save_id: "uuid", writer: "uuid", over: "uuid[]",
                may_change: "boolean", in_time_only: "boolean", by_line: "boolean", sure: "int", entered: "boolean" }.freeze
      # What stands where nothing is given.
      USUAL = { attempt: 1, sure: nil, over: [], in_time_only: false, by_line: false, entered: false }.freeze

      TOLD = Core::Session::Sitting::TOLD_AT_ONCE.map { |feedback| "'#{feedback}'" }.join(", ")
      private_constant :TOLD

      # The rule of Core::Session::Acceptance. Where each is alone nothing is open to the room.
      # `in_time` holds while answering is open to that seat, or its sitting,
      # and for the grace after it, as long as it was not told how it went. Only slides are taken that the seat could have
      # been on. A late save fills a blank or an unmarked draft, and never replaces what
      # counts already. What can't be read as an answer replaces none that was handed in. What one window
      # wrote replaces what another did only where it was written over it. In order of the rows, so that
      # two processes never wait for each other.
      SAVE = <<~SQL.freeze
        INSERT INTO answers (session_id, seat_id, slide_id, attempt, value, typed, final, late, by_line, keyed, changeable,
                             save_no, save_id, writer, over, sure, entered, received_at)
        SELECT session_id, seat_id, slide_id, attempt, value, typed, final, NOT in_time, by_line AND in_time, keyed, changeable,
               save_no, save_id, writer, over, sure, entered, now
        FROM (
          SELECT given.*, clock.now, COALESCE(given.may_change, (sessions.options->>'may_change')::boolean, true)
                 AND COALESCE(sittings.rules->>'feedback', '') NOT IN (#{TOLD}) AS changeable,
                 tellings.told_at IS NULL AND (
                   COALESCE(openings.opened_at <= clock.now AND COALESCE(openings.told_at > clock.now, true)
                            AND clock.now <= room.ends_at + make_interval(
                              secs => CASE WHEN given.by_line THEN #{Core::Session::LineDelay::MOST}
                                           ELSE #{Core::Session::Opening::GRACE} END), false)
                   OR COALESCE(sittings.handed_in_at IS NULL AND sittings.started_at <= clock.now AND own.may_be_on
                               AND clock.now <= own.ends_at + make_interval(secs => #{Core::Session::Opening::GRACE}), false)
                 ) AS in_time
          FROM json_to_recordset(?::json) AS given(#{GIVEN.map { |name, type| "#{name} #{type}" }.join(", ")})
          CROSS JOIN (SELECT clock_timestamp() AS now) AS clock
          JOIN sessions ON sessions.id = given.session_id AND sessions.deleted_at IS NULL
                        AND (sessions.ended_at IS NULL
                             OR clock.now < sessions.ended_at + make_interval(secs => #{Core::Session::Acceptance::LATEST}))
          JOIN seats ON seats.id = given.seat_id AND seats.removed_at IS NULL
          LEFT JOIN openings ON openings.session_id = given.session_id AND openings.slide_id = given.slide_id
                             AND openings.attempt = given.attempt AND NOT sessions.self_paced
          LEFT JOIN sittings ON sittings.seat_id = given.seat_id AND sittings.attempt = given.attempt
                             AND given.slide_id = ANY (sittings.slides)
          LEFT JOIN tellings ON tellings.seat_id = given.seat_id AND tellings.slide_id = given.slide_id
                             AND tellings.attempt = given.attempt
          CROSS JOIN LATERAL (
            SELECT LEAST(openings.closed_at, openings.deadline + (openings.deadline - COALESCE(openings.clock_at, openings.opened_at))
                                                                 * (seats.time_factor::float8 - 1), 'infinity') AS ends_at
          ) AS room
          CROSS JOIN LATERAL (
            SELECT LEAST(sittings.deadline, sittings.window_ends_at, 'infinity') AS ends_at,
                   array_position(sittings.slides, given.slide_id) BETWEEN sittings.first_open AND sittings.last_open AS may_be_on
          ) AS own
          WHERE openings.session_id IS NOT NULL
                AND seats.joined_at <= room.ends_at + make_interval(secs => #{Core::Session::Opening::GRACE})
                OR sittings.id IS NOT NULL AND own.may_be_on
                   AND clock.now < LEAST(sittings.handed_in_at, own.ends_at)
                                   + make_interval(secs => #{Core::Session::Acceptance::LATEST})
        ) AS judged
        WHERE in_time OR NOT in_time_only
        ORDER BY seat_id, slide_id, attempt
        ON CONFLICT (seat_id, slide_id, attempt) DO UPDATE
          SET value = excluded.value, typed = excluded.typed, final = excluded.final, late = excluded.late,
              by_line = excluded.by_line, keyed = excluded.keyed, changeable = excluded.changeable, save_no = excluded.save_no,
              save_id = excluded.save_id, writer = excluded.writer, over = excluded.over, received_at = excluded.received_at,
              sure = excluded.sure, entered = excluded.entered,
              seq = nextval('answers_seq')
          WHERE excluded.save_no > answers.save_no AND (excluded.entered OR (excluded.typed IS NULL OR NOT answers.final)
            AND (COALESCE(answers.writer = excluded.writer, true) OR answers.save_id = ANY(excluded.over))
            AND CASE WHEN excluded.late THEN NOT answers.final AND (answers.late OR NOT excluded.keyed)
                     ELSE answers.late OR NOT answers.final OR excluded.changeable END)
        RETURNING seat_id, slide_id, attempt, final, late
      SQL

      LATENESS = <<~SQL
        SELECT date_part('epoch', clock_timestamp()) AS now, seats.round_trip,
               date_part('epoch', seats.heard_at) AS heard_at, date_part('epoch', seats.asked_at) AS asked_at,
               date_part('epoch', seats.bad_from) AS bad_from, date_part('epoch', seats.bad_until) AS bad_until,
               date_part('epoch', deliveries.sent_at) AS sent_at,
               date_part('epoch', LEAST(openings.closed_at, openings.deadline
                                        + (openings.deadline - COALESCE(openings.clock_at, openings.opened_at))
                                          * (seats.time_factor::float8 - 1))) AS ended
        FROM openings
        JOIN seats ON seats.session_id = openings.session_id AND seats.id = :seat_id
        LEFT JOIN deliveries ON deliveries.seat_id = seats.id AND deliveries.slide_id = openings.slide_id
                             AND deliveries.attempt = openings.attempt
        WHERE openings.session_id = :session_id AND openings.slide_id = :slide_id AND openings.attempt = :attempt
      SQL

      # One save.
      # @param given [Hash] see #save_all
      # @return [Saved, nil] nil when nothing was stored; #stored says what stands
      def save(**given) = save_all([given]).first

      # Saves that came together, at most one of a seat, slide and attempt.
      # @param saves [Array<Hash>] of :session_id, :seat_id, :slide_id, :final, :keyed, :save_no and :save_id
      #   (save_no rises with every save of this device; save_id is the UUID of this save: the same again is
      #   the same save); :value (Hash as the prompt's kind read it, nil where it could not) or :typed (then,
      #   what was sent: field to texts); and where they are not as usual: :attempt (1), :may_change (what the
      #   question says of it; nil: as the session says), :writer (UUID of the window it was written in), :over
      #   (ids of the saves it was written over), :in_time_only (store nothing when it is late), :by_line (it is
      #   late for the line's sake, and counts), :sure (1 to 3), :entered (by the teacher, for a team at the board)
      # @return [Array<Saved, nil>] for each of them; nil where nothing was stored
      def save_all(saves)
        rows = saves.map { |given| { **USUAL, **given, value: given[:value] || {} } }
        stored = save_statement.call(given: JSON.generate(rows)).to_h do |row|
          [row.values_at(:seat_id, :slide_id, :attempt), Saved.new(**row.slice(:final, :late)).freeze]
        end
        rows.map { |row| stored[row.values_at(:seat_id, :slide_id, :attempt)] }
      end

      # What a seat gave counts as handed in.
      # @param slide_ids [Array<String>]
      def hand_in(seat_id, slide_ids, attempt)
        database[:answers].where(seat_id: seat_id, slide_id: slide_ids, attempt: attempt, typed: nil, final: false, late: false)
                          .update(final: true, seq: Sequel.function(:nextval, "answers_seq"))
      end

      # Lets late answers to a question count, or not any more.
      # @param seat_id [Integer, nil] only of this seat
      # @return [Integer] how many that changed
      def let_count(session_id, slide_id, counts, seat_id: nil)
        which = { session_id: session_id, slide_id: slide_id, late: true, let_count: !counts, seat_id: seat_id }
        database[:answers].where(seat_id ? which : which.except(:seat_id))
                          .update(let_count: counts, seq: Sequel.function(:nextval, "answers_seq"))
      end

      # @return [Stored, nil]
      def stored(seat_id, slide_id, attempt)
        row = database[:answers].where(seat_id: seat_id, slide_id: slide_id, attempt: attempt)
                                .select(:id, :save_no, :save_id, :writer, :final, :late).first
        row && Stored.new(**row).freeze
      end

      # Keeps what another window wrote conflicting_version what counts.
      # @param typed [Hash{String=>Array<String>}]
      def keep_conflicting(id, typed)
        database[:answers].where(id: id).update(conflicting_version: Sequel.pg_jsonb(typed),
                                                seq: Sequel.function(:nextval, "answers_seq"))
      end

      # @return [Lateness, nil] nil unless answering has ended
      def lateness(session_id, seat_id, slide_id, attempt)
        row = database[LATENESS, { session_id: session_id, seat_id: seat_id, slide_id: slide_id, attempt: attempt }].first
        return nil unless row&.fetch(:ended)

        line = Core::Session::LineDelay::Line.new(**row.slice(*Core::Session::LineDelay::Line.members)).freeze
        Lateness.new(**row.slice(:now, :ended, :sent_at), line: line).freeze
      end

      # @param beyond [Integer] only rows with a higher seq: what changed since
      # @param which [Hash] :seat_id or :slide_id, where only those of one are wanted
      # @return [Array<Array(Integer, Core::Session::Answer)>] seq and answer, in order of seq
      def of(session_id, beyond: 0, **which)
        known = {}
        name = ["answers_of", *which.keys].join("_").to_sym
        all = prepared(name) { all_beyond.where(placeholders(which.keys)) }
        all.call(session_id: session_id, beyond: beyond, **which).map { |row| [row[:seq], read(row, known)] }
      end

      # @param which [Hash] :seat_id or :slide_id, where only those of one are wanted
      # @return [Hash{Array(String, Integer)=>Hash{Integer=>Core::Session::Answer}}] slide and attempt to seat id to answer;
      #   of a whole session to a Core::Session::AnswerSet
      def by_question(session_id, **which)
        return all_by_question(session_id) if which.empty?

        of(session_id, **which).each_with_object({}) do |(_seq, answer), answers|
          (answers[[answer.slide_id, answer.attempt]] ||= {})[answer.seat_id] = answer
        end
      end

      # @return [Array<Integer>] ids of the seats that have handed one in
      def handed_in(session_id, slide_id, attempt)
        database[:answers].where(session_id: session_id, slide_id: slide_id, attempt: attempt, final: true).select_map(:seat_id)
      end

      # @return [Array<Integer>] ids of the seats that gave one
      def seats(session_id, slide_id, attempt)
        database[:answers].where(session_id: session_id, slide_id: slide_id, attempt: attempt).select_map(:seat_id)
      end

      # @param attempt [Integer, nil] nil for the latest
      # @return [Hash, nil] the value one seat gave to one question, where it can be read
      def value(session_id, slide_id, seat_id, attempt: nil)
        which = { session_id: session_id, seat_id: seat_id, slide_id: slide_id, typed: nil, attempt: attempt }
        database[:answers].where(attempt ? which : which.except(:attempt)).reverse(:attempt).get(:value)&.to_h
      end

      private

      # What many gave alike comes as one row with all who gave it.
      ALIKE = <<~SQL
        SELECT slide_id, attempt, value::text AS value, typed::text AS typed, conflicting_version::text AS conflicting_version,
               final, late, by_line, let_count, sure, entered,
               string_agg(seat_id::text, ',') AS seats, string_agg(id::text, ',') AS arrivals, string_agg(save_id::text, ',') AS saves,
               string_agg(date_part('epoch', received_at)::text, ',') AS times
        FROM answers WHERE session_id = ?
        GROUP BY slide_id, attempt, answers.value::text, answers.typed::text, answers.conflicting_version::text, final, late,
                 by_line, let_count, sure, entered
      SQL
      private_constant :ALIKE

      def all_by_question(session_id)
        rows = database[ALIKE, session_id].all.group_by { |row| row.values_at(:slide_id, :attempt) }
        rows.transform_values { |each| Core::Session::AnswerSet.new(each.map { |row| alike(row) }) }
      end

      def alike(row)
        seats, times, arrivals, saves = %i[seats times arrivals saves].map { |name| row.delete(name) }
        came = Core::Session::AnswerSet::Seats.new(seats, times)
        Core::Session::AnswerSet::Alike.new(read(row, {}), came, arrivals, saves)
      end

      def all_beyond
        all = database[:answers].where(session_id: :$session_id).where { seq > :$beyond }.order(:seq)
        documents = %i[value typed conflicting_version].map { |name| Sequel.cast(name, :text).as(name) }
        all.select(:seq, :seat_id, :slide_id, :attempt, *documents, :final, :late, :by_line, :save_id, :let_count, :sure,
                   :entered, Sequel[:id].as(:arrival), Repository.epoch(:received_at).as(:received_at))
      end

      # What many gave alike is read once, and is one and the same object.
      # @param known [Hash{String=>Hash}] documents that were read already
      def read(row, known)
        %i[value typed conflicting_version].each do |name|
          text = row[name]
          row[name] = known[text] ||= JSON.parse(text).freeze if text
        end
        Core::Session::Answer.new(**row.except(:seq)).freeze
      end

      def save_statement = prepared(:save_answers) { database[SAVE, :$given] }
    end
  end
end
