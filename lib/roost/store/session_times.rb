# frozen_string_literal: true

module Roost
  module Store
    # Puts the times of a session that has ended back, as if it had been held then, for demo data.
    class SessionTimes < Repository
      # A slide's answers and what was sent come as long after its beginning as they came after they were sent.
      ANSWERS = <<~SQL
        UPDATE answers SET received_at = to_timestamp(:from) + :read * interval '1 second' + (received_at - sent_at)
        FROM deliveries WHERE deliveries.seat_id = answers.seat_id AND deliveries.slide_id = answers.slide_id
          AND deliveries.attempt = answers.attempt
          AND answers.session_id = :session_id AND answers.slide_id = :slide_id
      SQL
      # A round began with its first question.
      PLAYS = <<~SQL
        UPDATE round_plays SET began_at = COALESCE((
          SELECT min(opened_at) FROM openings WHERE openings.session_id = round_plays.session_id AND play = number
                                              AND slide_id = ANY(slide_ids)), began_at)
        WHERE session_id = ?
      SQL
      private_constant :ANSWERS, :PLAYS

      # @param by [Integer] seconds between its end and now
      # @param lasting [Integer] seconds between its beginning and its end
      # @param slots [Hash{String=>Array(Float, Float)}] id of each slide that was up, in order, to from and until which share of
      #   the lesson
      def put_back(session_id, by:, lasting:, slots: {})
        start = now - by - lasting
        at = ->(share) { start + (lasting * share) }
        database[:sessions].where(id: session_id).update(created_at: time(start), ended_at: time(start + lasting))
        database[:seats].where(session_id: session_id).update(joined_at: time(start), seen_at: nil)
        slots.each { |slide_id, (from, to)| slide(session_id, slide_id, at.call(from), at.call(to)) }
        database[PLAYS, session_id].update
        database[:session_events].where(session_id: session_id, slide_id: nil).update(at: time(start))
        database[:session_events].where(session_id: session_id, command: "end").update(at: time(start + lasting))
        state = Sequel.lit("state || jsonb_build_object('begun_at', ?::float8)", start)
        database[:sessions].where(id: session_id).update(state: state, results_no: Sequel[:results_no] + 1)
      end

      private

      READING = 4 # seconds before answers are begun
      private_constant :READING

      def slide(session_id, slide_id, from, to)
        which = { session_id: session_id, slide_id: slide_id }
        database[:session_events].where(which).update(at: time(from))
        database[ANSWERS, { **which, from: from, read: READING }].update
        database[:deliveries].where(which).update(sent_at: time(from + READING))
        # Told when it was over: with what was told before, answers would count for nothing.
        told = ->(column) { Sequel.case({ { column => nil } => nil }, time(to)) }
        database[:openings].where(which).update(opened_at: time(from), closed_at: time(to), told_at: told.call(:told_at),
                                                key_at: told.call(:key_at))
      end

      def time(seconds) = Sequel.function(:to_timestamp, seconds)
    end
  end
end
