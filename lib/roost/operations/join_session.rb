# frozen_string_literal: true

module Roost
  module Operations
    # Gives a device a seat: by code and name, no account.
    class JoinSession
      NOT_OPEN = "That code isn't open. Check the board, or ask your teacher."
      ENDED = "That lesson has ended. Ask your teacher for a new code."
      FULL = "This session is full. Ask your teacher."
      MOST_SEATS = 1500
      NAME_TRIES = 40

      # @return [Core::Reading] of the open session a typed code stands for
      def self.session(raw_code)
        code = Core::JoinCode.read(raw_code)
        record = code && Store::Sessions.new.by_code(code)
        return Core::Reading.refused(NOT_OPEN) unless record
        return Core::Reading.refused(ENDED) if record.ended_at

        Core::Reading.ok(record)
      end

      # @return [Core::Reading] of the seat's token
      def call(raw_code, raw_name, practice: false)
        JoinSession.session(raw_code).and_then { |record| sit_down(record, raw_name, practice) }
      end

      private

      def sit_down(record, raw_name, practice)
        seats = Store::Seats.new
        NAME_TRIES.times do
          taken = seats.names(record.id)
          return Core::Reading.refused(FULL) if taken.length >= MOST_SEATS

          name = Core::SeatName.read(raw_name, taken: taken)
          return name unless name.ok?

          _id, token = seats.create(record.id, name.value, practice: practice)
          next unless token

          Live::Bus.announce(record.id, :people)
          return Core::Reading.ok(token)
        end
        Core::Reading.refused("Many are joining with that name just now. Try again.")
      end
    end
  end
end
