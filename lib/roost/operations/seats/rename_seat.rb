# frozen_string_literal: true

module Roost
  module Operations
    # Gives a seat another name.
    class RenameSeat < ChangeSeat
      # @return [Core::Reading, nil] of the name; nil when she has no such session or seat
      def call(account_id, session_id, seat_id, raw_name)
        done = change(account_id, session_id, seat_id, "rename") do |seats|
          taken = ->(beginning) { seats.names(session_id, beginning: beginning, but: seat_id) }
          Core::SeatName.read(raw_name, taken: taken).and_then do |name|
            seats.rename(seat_id, name) ? Core::Reading.ok({ "name" => name }) : Core::Reading.refused(JoinSession::TAKEN)
          end
        end
        done&.map { |recorded| recorded["name"] }
      end
    end
  end
end
