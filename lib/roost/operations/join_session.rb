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
      TAKEN = "That name is taken. Add a letter or a number to it."

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
        tried = nil
        loop do
          reading = Core::SeatName.read(raw_name, taken: ->(beginning) { seats.names(row.id, beginning: beginning) })
          return reading unless reading.ok?
          return Core::Reading.refused(TAKEN) if reading.value == tried

          token = enter(seats, row, tried = reading.value, practice)
          return Core::Reading.ok(token) if token
          return Core::Reading.refused(FULL) if !practice && full?(seats, row)
        end
      end

      # @return [String, nil] nil when another was faster, or there is no room
      def enter(seats, row, name, practice)
        _id, token = seats.create(row.id, name, practice: practice, room: practice ? nil : row.state.room_for)
        Live::Bus.announce(row.id, :people) if token
        token
      end

      def full?(seats, row) = seats.count(row.id).fetch(row.id, 0) >= row.state.room_for
    end
  end
end
