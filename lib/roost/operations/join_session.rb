# frozen_string_literal: true

module Roost
  module Operations
    # Gives a device a seat: by code and name, no account.
    class JoinSession
      NOT_OPEN = "That code isn't open. Check the board, or ask your teacher."
      ENDED = "That lesson has ended. Ask your teacher for a new code."
      FULL = "This lesson is full. Your teacher can make room for more."
      LOCKED = "The door of this lesson is locked. Ask your teacher to let you in."
      # Where two letters are one to the database that are not to us.
      TAKEN = "That name is taken. Add another to it."
      DOOR = 77_813 # of the lock that lets one in at a time

      # @return [Core::Reading] of the open session a typed code stands for
      def self.session(raw_code)
        code = Core::JoinCode.read(raw_code)
        row = code && Store::Sessions.new.by_code(code)
        return Core::Reading.refused(NOT_OPEN) unless row
        return Core::Reading.refused(ENDED) if row.ended_at
        return Core::Reading.refused(LOCKED) if row.state.locked

        Core::Reading.ok(row)
      end

      # @return [Core::Reading] of the seat's token
      def call(raw_code, raw_name, practice: false)
        JoinSession.session(raw_code).and_then { |row| sit_down(row, raw_name, practice) }
      end

      private

      def sit_down(row, raw_name, practice)
        seats = Store::Seats.new
        seats.transaction do
          seats.one_at_a_time(DOOR, row.id)
          next Core::Reading.refused(FULL) if seats.count(row.id).fetch(row.id, 0) >= row.state.room_for && !practice

          taken = ->(beginning) { seats.names(row.id, beginning: beginning) }
          Core::SeatName.read(raw_name, taken: taken).and_then do |name|
            _id, token = seats.create(row.id, name, practice: practice)
            next Core::Reading.refused(TAKEN) unless token

            Live::Bus.announce(row.id, :people)
            Core::Reading.ok(token)
          end
        end
      end
    end
  end
end
