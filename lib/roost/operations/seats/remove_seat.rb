# frozen_string_literal: true

module Roost
  module Operations
    # Takes a seat out of a session: its device is told so, what it gave is shown and counted no more.
    class RemoveSeat < ChangeSeat
      # @return [Core::Reading, nil] of the seat's id; nil when she has no such session or seat
      def call(account_id, session_id, seat_id)
        done = change(account_id, session_id, seat_id, "remove") do |seats|
          seats.remove(seat_id)
          Core::Reading.ok({})
        end
        done&.map { seat_id }
      end
    end
  end
end
