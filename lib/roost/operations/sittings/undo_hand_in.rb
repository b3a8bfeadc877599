# frozen_string_literal: true

module Roost
  module Operations
    # Takes back that a sitting was handed in, as when somebody else did it under a classmate's name: the student goes on as
    # long as there is time, and what was told because of it settles nothing.
    class UndoHandIn
      NOT_IN = "Nothing is handed in there."

      # @return [Core::Reading, nil] of the seat's id; nil when she has no such session or seat
      def call(account_id, session_id, seat_id)
        sittings = Store::Sittings.new
        sittings.transaction do
          row = Store::Sessions.new.of_teacher(account_id, session_id, lock: true)
          next nil unless row && Store::Seats.new.in?(session_id, seat_id)

          kept = sittings.latest_of_seat(seat_id)
          next Core::Reading.refused(NOT_IN) unless kept&.sitting&.handed_in_at

          Store::Tellings.new.forget(seat_id, kept.sitting.attempt, since: kept.sitting.handed_in_at)
          sittings.not_handed_in(kept.id)
          Live::Bus.announce(session_id, :answers)
          Core::Reading.ok(seat_id)
        end
      end
    end
  end
end
