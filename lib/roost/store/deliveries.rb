# frozen_string_literal: true

module Roost
  module Store
    # When each seat's device was first sent each open question, a row each attempt.
    class Deliveries < Repository
      NOTE = <<~SQL
        INSERT INTO deliveries (session_id, seat_id, slide_id, attempt)
        SELECT ?, seats.id, slides.id, ? FROM unnest(?::bigint[]) AS seats(id) CROSS JOIN unnest(?::text[]) AS slides(id)
        ON CONFLICT DO NOTHING
      SQL
      # A row each question.
      ALL = <<~SQL
        SELECT slide_id, attempt, string_agg(seat_id::text, ',') AS seats, string_agg(date_part('epoch', sent_at)::text, ',') AS times
        FROM deliveries WHERE session_id = ? GROUP BY slide_id, attempt
      SQL
      private_constant :NOTE, :ALL

      # Notes that the open question was sent; the first time is the one that counts.
      def note(session_id, slide_id, seat_ids, attempt: 1)
        insert(session_id, seat_ids, [slide_id], attempt)
      end

      # What a seat was asked in one attempt, whether it was sent each or not.
      # @param slide_ids [Array<String>]
      def note_all(session_id, slide_ids, seat_id, attempt:)
        insert(session_id, [seat_id], slide_ids, attempt)
      end

      # @param since [Float] only what was sent then or later, epoch seconds
      # @param seat_id [Integer, nil] only to this seat
      # @return [Hash{Array(String, Integer)=>Hash{Integer=>Float}}] slide and attempt to seat id to epoch seconds
      def of(session_id, since: 0.0, seat_id: nil)
        return by_question(session_id).transform_values(&:to_h) if since.zero? && seat_id.nil?

        which = { session_id: session_id, seat_id: seat_id }.compact
        sent_since(which.keys).call(**which, since: since).each_with_object({}) do |row, shown|
          (shown[row.values_at(:slide_id, :attempt)] ||= {})[row[:seat_id]] = row[:sent_at]
        end
      end

      # All of a session.
      # @return [Hash{Array(String, Integer)=>Core::Session::AnswerSet::Seats}] by slide and attempt
      def by_question(session_id)
        database[ALL, session_id].to_h do |row|
          [row.values_at(:slide_id, :attempt), Core::Session::AnswerSet::Seats.new(row[:seats], row[:times])]
        end
      end

      # @return [Array<Integer>] ids of the seats whose devices were sent it
      def seats(session_id, slide_id, attempt)
        database[:deliveries].where(session_id: session_id, slide_id: slide_id, attempt: attempt).select_map(:seat_id)
      end

      # Puts one back in time, for demo data: it was sent so many seconds before its answer came.
      def backdate(seat_id, slide_id, seconds, attempt: 1)
        which = { seat_id: seat_id, slide_id: slide_id, attempt: attempt }
        came = database[:answers].where(which).select(:received_at)
        database[:deliveries].where(which)
                             .update(sent_at: Sequel.lit("? - make_interval(secs => ?)", came, seconds))
      end

      private

      # @param columns [Array<Symbol>] that are given
      def sent_since(columns)
        prepared([:sent_since, *columns].join("_").to_sym) do
          sent = Repository.epoch(:sent_at)
          database[:deliveries].where(placeholders(columns)).where(sent >= :$since)
                               .select(:seat_id, :slide_id, :attempt, sent.as(:sent_at))
        end
      end

      # Each of these slides at each of these seats.
      def insert(session_id, seat_ids, slide_ids, attempt)
        prepared(:note_deliveries) { database[NOTE, :$session_id, :$attempt, :$seats, :$slides] }
          .call(session_id: session_id, attempt: attempt, seats: Sequel.pg_array(seat_ids), slides: Sequel.pg_array(slide_ids))
      end
    end
  end
end
