# frozen_string_literal: true

module Roost
  module Operations
    # Two parts of the open question that a student turned over: whether they belong together is told one
    # try at a time.
    class TurnParts
      MOST = 120 # a minute
      NOT_OPEN = "This question isn't open. Wait for your teacher."
      TOO_MANY = "That was a lot of tries. Wait a minute, then continue."

      # @param seat [Hash] :id and :session_id
      # @param parts [Array<String>] what they are called at that seat
      # @return [Core::Reading] of what Core::Prompt#turned says
      def call(seat, slide_id, parts)
        row = Store::Sessions.new.find(seat[:session_id])
        slide = OpenToSeat.slides(seat, row).find { |each| each.id == slide_id }
        return Core::Reading.refused(NOT_OPEN) unless slide
        return Core::Reading.refused(TOO_MANY) if tries(seat) > MOST

        Core::Reading.ok(slide.prompt.turned(parts, SaveAnswer.names(seat, slide)))
      end

      private

      def tries(seat) = Store::Counters.new.increment("turned:#{seat[:id]}", expires_in: 60)
    end
  end
end
