# frozen_string_literal: true

module Roost
  module Operations
    # Takes in a picture from a student's device, for a card: only while a question that takes
    # pictures is open, photographs only, and not more of them than a lesson needs.
    class KeepSeatPicture
      MOST = 30
      PERIOD = 600
      # The device makes them far smaller before it sends them.
      MOST_PIXELS = 12_000_000

      # @param seat [Hash] :id and :session_id
      # @param io [IO] of the picture's bytes
      # @return [Core::Reading] of a Core::Picture
      def call(seat, io)
        row = Store::Sessions.new.find(seat[:session_id])
        return Core::Reading.refused("Pictures can't be added now. Wait for your teacher.") unless asked_for?(seat, row)

        count = Store::Counters.new.increment("pictures:#{seat[:id]}", expires_in: PERIOD)
        return Core::Reading.refused("That was a lot of pictures. Wait a few minutes, then continue.") if count > MOST

        KeepPicture.new.call(row.account_id, io, "Your picture", drawings: false, pixels: MOST_PIXELS,
                                                                          seat_id: seat[:id])
      end

      private

      def asked_for?(seat, row) = OpenToSeat.slides(seat, row).any? { |slide| slide.prompt.uploads? }
    end
  end
end
