# frozen_string_literal: true

module Roost
  module Operations
    # Why a seat has the points it has for a question of a round: the steps of the function that gave them (rules.md, why this
    # figure).
    class WhyPoints
      # @param seat [Hash] :id and :session_id
      # @param attempt [Integer, nil] which time the question was asked
      # @return [Array<Core::Step>, nil] nil before the room was told how it went, and where there is no such question
      def call(seat, slide_id, attempt)
        row = Store::Sessions.new.find(seat[:session_id])
        opening = attempt && row && row.state.facts.opening(slide_id, attempt)
        return nil unless opening&.told_at && !row.deleted && Store::Sessions.new.lesson_of(row).game?(slide_id)

        # Of the others only where what one of them set is this seat's answer, too.
        whose = row.state.facts.play_at(slide_id, opening)&.as_one? ? nil : seat[:id]
        steps = []
        Store::Records.new.for_students(row, seat_id: whose).outcome(slide_id, seat[:id], attempt: attempt, steps: steps)
        steps
      end
    end
  end
end
