# frozen_string_literal: true

module Roost
  module Operations
    # Gives a seat another name.
    class RenameSeat < ChangeSeat
      # @return [Core::Reading, nil] of the name; nil when she has no such session or seat
      def call(account_id, session_id, seat_id, raw_name)
        done = change(account_id, session_id, seat_id, "rename") do |seats|
          Core::SeatName.read(raw_name, taken: seats.names(session_id, but: seat_id)).map do |name|
            seats.rename(seat_id, name)
            { "name" => name }
          end
        end
        done&.map { |recorded| recorded["name"] }
      end
    end
  end
end
