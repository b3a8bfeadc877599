# frozen_string_literal: true

module Roost
  module Store
    # Puts together where a session stands, as the live views see it.
    class Moments < Repository
      # @param row [Sessions::Row]
      # @param stopped [Array<String>, nil] names, where the caller has them at hand already
      # @param parts [Hash] see Records#of
      # @return [Core::Session::Moment]
      def of(row, stopped: nil, **parts)
        Core::Session::Moment.new(record: Records.new(database).of(row, **parts), state: row.state, version: row.version,
                                  code: row.code, stopped: stopped || StoppedNames.new(database).waiting(row.id),
                                  class_name: row.class_name, last_time: Sessions.new(database).last_time(row.id),
                                  seed: Roost.settings.session_secret)
      end

      # The session as one seat needs it: itself and its own answers, and the others only where what
      # they gave is up.
      # @return [Core::Session::Moment]
      def at_seat(row, seat_id)
        return of(row, roll: [], stopped: []) if row.state.showing.any?

        answers = Answers.new(database)
        of(row, roll: [], stopped: [], seats: Seats.new(database).of(row.id, seat_id: seat_id),
                answers: answers.by_question(row.id, seat_id: seat_id),
                shown: Deliveries.new(database).of(row.id, seat_id: seat_id))
      end
    end
  end
end
