# frozen_string_literal: true

module Roost
  module Operations
    # Takes a seat out of a session and frees its name, so that whoever it belongs to can join under it. What was given stays in
    # the records under another name.
    class FreeName < ChangeSeat
      # @return [Core::Reading, nil] of the seat's id; nil when she has no such session or seat
      def call(account_id, session_id, seat_id)
        done = change(account_id, session_id, seat_id, "remove") do |seats|
          seats.free_name(seat_id)
          seats.remove(seat_id)
          Core::Reading.ok({})
        end
        done&.map { seat_id }
      end
    end
  end
end
