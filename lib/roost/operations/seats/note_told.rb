# frozen_string_literal: true

module Roost
  module Operations
    # Notes what a student at work is told of single questions: what comes for them from then on counts no more.
    class NoteTold
      # @param seat [Hash] :id
      # @param sitting [Core::Session::Sitting]
      # @param page [Core::Session::Views::SelfPaced] what they are sent
      def call(seat, sitting, page)
        told = page.steps.select(&:outcome).map { |step| step.slide.id }
        return if told.empty?

        tellings = Store::Tellings.new
        tellings.note(seat[:id], told - tellings.of(seat[:id], sitting.attempt), sitting.attempt)
      end
    end
  end
end
