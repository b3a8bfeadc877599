# frozen_string_literal: true

module Roost
  module Operations
    # A seat's page was asked for: the student is here, and is shown the question that is open.
    class VisitSeat
      # @param seat [Hash] :id
      # @param row [Store::Sessions::Row] of its session
      # @param device [String, nil] by which the device is known; browser [String] what it says it is
      def call(seat, row, device: nil, browser: "")
        Store::Seats.new.looked(seat[:id], device: device, browser: browser.scrub("")[0, 200])
        state = row.state
        Store::Deliveries.new.note(row.id, state.slide_id, [seat[:id]], attempt: state.opening.attempt) if state.open?
      end
    end
  end
end
