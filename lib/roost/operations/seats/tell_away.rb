# frozen_string_literal: true

module Roost
  module Operations
    # A device tells that its window went to the background, or came back.
    class TellAway
      # @param seat [Hash] :id, :session_id
      # @param away [Boolean]
      def call(seat, away:)
        Live::Bus.announce(seat[:session_id], :people) if Store::Seats.new.hide(seat[:id], away).positive?
      end
    end
  end
end
