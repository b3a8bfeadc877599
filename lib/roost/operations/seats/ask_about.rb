# frozen_string_literal: true

module Roost
  module Operations
    # A student's form asks something about the open question while it is answered, as its kind has it: so many times a minute.
    class AskAbout
      MOST = 120 # a minute
      NOT_OPEN = "This question isn't open. Wait for your teacher."
      TOO_MANY = "That was a lot of tries. Wait a minute, then continue."

      # @param seat [Hash] :id and :session_id
      # @return [Core::Reading] of Array(Core::Prompt, Core::Session::ItemIds), the question and what its parts are called there
      def call(seat, slide_id)
        row = Store::Sessions.new.find(seat[:session_id])
        slide = OpenToSeat.slides(seat, row).find { |each| each.id == slide_id }
        return Core::Reading.refused(NOT_OPEN) unless slide
        return Core::Reading.refused(TOO_MANY) if tries(seat) > MOST

        Core::Reading.ok([slide.prompt, SaveAnswer.names(seat, slide)])
      end

      private

      def tries(seat) = Store::Counters.new.increment("asked:#{seat[:id]}", expires_in: 60)
    end
  end
end
