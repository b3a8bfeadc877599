# frozen_string_literal: true

module Roost
  module Operations
    # How the questions of a lesson went when they were last asked.
    class LastTime
      # Earlier sessions that are looked at, the latest first.
      MOST = 5

      # @return [Hash{String=>Float}] ids of slides to the mean mark in the latest session in which their question was
      #   asked and marked; students of a practice class are left out
      def call(account_id, lesson_id)
        Store::PastSessions.new.ended_of_lesson(account_id, lesson_id, MOST).reverse.each_with_object({}) do |row, shares|
          results(row).questions.each { |question| shares[question.slide.id] = question.facility.to_f if question.facility }
        end
      end

      private

      def results(row)
        seats = Store::Seats.new.of(row.id).reject(&:practice)
        Core::Analysis::Results.new(Store::Records.new.of(row, seats: seats, roll: []))
      end
    end
  end
end
