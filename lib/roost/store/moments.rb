# frozen_string_literal: true

module Roost
  module Store
    # Puts together where a session stands, as the live views see it.
    class Moments < Repository
      # @param row [Sessions::Row]
      # @param parts [Hash] see Records#of
      # @return [Core::Session::Moment]
      def of(row, **parts)
        Core::Session::Moment.new(record: Records.new(database).of(row, **parts), state: row.state, version: row.version,
                                  code: row.code, seed: Roost.settings.session_secret)
      end

      # The session as one seat needs it: itself and its own answers, and the others only where what
      # they gave is up.
      # @return [Core::Session::Moment]
      def at_seat(row, seat_id)
        return of(row) if row.state.showing.any?

        answers = Answers.new(database)
        of(row, seats: Seats.new(database).of(row.id, seat_id: seat_id), answers: answers.by_question(row.id, seat_id: seat_id),
             shown: Deliveries.new(database).of(row.id, seat_id: seat_id))
      end
    end
  end
end
