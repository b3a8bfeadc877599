# frozen_string_literal: true

module Roost
  module Operations
    # Takes a seat out of a session: its device is told so, what it gave is shown and counted no more.
    class RemoveSeat
      # @return [Core::Reading, nil] of the seat's id; nil when she has no such session or seat
      def call(account_id, session_id, seat_id)
        sessions = Store::Sessions.new
        seats = Store::Seats.new
        sessions.transaction do
          record = sessions.of_teacher(account_id, session_id, lock: true)
          next nil unless record && seats.in?(session_id, seat_id)

          seats.remove(seat_id)
          sessions.advance(record, record.state, command: "remove", account_id: account_id, arguments: { "seat" => seat_id })
          %i[seats state].each { |scope| Live::Bus.announce(session_id, scope) }
          Core::Reading.ok(seat_id)
        end
      end
    end
  end
end
