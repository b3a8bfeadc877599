# frozen_string_literal: true

module Roost
  module Operations
    # Gives a seat another name; every process and device hears of it.
    class RenameSeat
      # @return [Core::Reading, nil] of the name; nil when she has no such session or seat
      def call(account_id, session_id, seat_id, raw_name)
        sessions = Store::Sessions.new
        seats = Store::Seats.new
        sessions.transaction do
          record = sessions.of_teacher(account_id, session_id, lock: true)
          next nil unless record && seats.in?(session_id, seat_id)

          Core::SeatName.read(raw_name, taken: seats.names(session_id, but: seat_id)).map do |name|
            seats.rename(seat_id, name)
            sessions.advance(record, record.state, command: "rename", account_id: account_id,
                                                   arguments: { "seat" => seat_id, "name" => name })
            %i[seats state].each { |scope| Live::Bus.announce(session_id, scope) }
            name
          end
        end
      end
    end
  end
end
