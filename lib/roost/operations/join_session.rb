# frozen_string_literal: true

module Roost
  module Operations
    # Gives a device a seat: by code and name, no account.
    class JoinSession
      NOT_OPEN = "That code isn't open. Check the board, or ask your teacher."
      ENDED = "That lesson has ended. Ask your teacher for a new code."
      FULL = "This lesson is full. Your teacher can make room for more."
      LOCKED = "The door of this lesson is locked. Ask your teacher to let you in."
      DOOR = 77_813 # of the lock that lets one in at a time

      # @return [Core::Reading] of the open session a typed code stands for
      def self.session(raw_code)
        code = Core::JoinCode.read(raw_code)
        record = code && Store::Sessions.new.by_code(code)
        return Core::Reading.refused(NOT_OPEN) unless record
        return Core::Reading.refused(ENDED) if record.ended_at
        return Core::Reading.refused(LOCKED) if record.state.locked

        Core::Reading.ok(record)
      end

      # @return [Core::Reading] of the seat's token
      def call(raw_code, raw_name, practice: false)
        JoinSession.session(raw_code).and_then { |record| sit_down(record, raw_name, practice) }
      end

      private

      def sit_down(record, raw_name, practice)
        seats = Store::Seats.new
        seats.transaction do
          seats.one_at_a_time(DOOR, record.id)
          taken = seats.names(record.id)
          next Core::Reading.refused(FULL) if taken.length >= record.state.room_for && !practice

          Core::SeatName.read(raw_name, taken: taken).map do |name|
            _id, token = seats.create(record.id, name, practice: practice)
            Live::Bus.announce(record.id, :people)
            token
          end
        end
      end
    end
  end
end
