# frozen_string_literal: true

module Roost
  module Operations
    # Lets a student who came in without a pass go on at their seat, on this device or another: by their name and their number.
    # Five wrong numbers make a name wait a minute; the others of the session never wait for it.
    class ComeBack
      WRONG = "That name and number don't belong together. Look at the page where you started, or ask your teacher."
      WAIT = "That was the wrong number too often for this name. Wait a minute, then try again."
      MOST_WRONG = 5
      PERIOD = 60 # seconds

      # @param row [Store::Sessions::Row]
      # @param raw_name [String, nil]
      # @param number [String, nil] four digits
      # @return [Core::Reading] of the seat's token from now on
      def call(row, raw_name, number)
        name = Core::Text.read(raw_name, limit: Core::SeatName::LIMIT, what: "That name", lines: false)
        return name unless name.ok?

        key = "back:#{row.id}:#{Store::SignIns.digest(name.value.downcase)}"
        counters = Store::Counters.new
        # Counted before it is looked at, so that many at once are no more than one after the other.
        return Core::Reading.refused(WAIT) if counters.increment(key, expires_in: PERIOD) > MOST_WRONG

        seat_id = Store::Seats.new.by_number(row.id, name.value, number.to_s.strip)
        return Core::Reading.refused(WRONG) unless seat_id

        counters.delete(key)
        Core::Reading.ok(moved(row, seat_id))
      end

      private

      def moved(row, seat_id)
        token = Store::Seats.new.move(seat_id)
        Live::Bus.announce(row.id, :seats)
        token
      end
    end
  end
end
