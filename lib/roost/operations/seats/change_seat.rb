# frozen_string_literal: true

module Roost
  module Operations
    # What a teacher does to a seat: it is recorded in the session, and every process and device hears
    # of it; all or nothing.
    class ChangeSeat
      private

      # @param command [String] under which it is recorded
      # @yieldparam seats [Store::Seats]
      # @yieldreturn [Core::Reading] of what is recorded with it
      # @return [Core::Reading, nil] what was yielded; nil when she has no such session or seat
      def change(account_id, session_id, seat_id, command)
        sessions = Store::Sessions.new
        seats = Store::Seats.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          next nil unless row && seats.in?(session_id, seat_id)

          yield(seats).map do |recorded|
            sessions.advance(row, row.state, command: command, account_id: account_id,
                                             arguments: { "seat" => seat_id, **recorded })
            %i[seats state].each { |scope| Live::Bus.announce(session_id, scope) }
            recorded
          end
        end
      end
    end
  end
end
