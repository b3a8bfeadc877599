# frozen_string_literal: true

module Roost
  module Operations
    # Makes a slide of a starter.
    class UseStarter
      # @param take [#call] gives the picture of a drawing, as TakeDrawing does
      def initialize(take: TakeDrawing.new)
        @take = take
      end

      # @param starter [Store::Starters::Starter]
      # @param id [String] for the slide
      # @return [Core::Reading] of the slide
      def call(account_id, starter, id)
        slide = starter.slide.copy(id)
        return Core::Reading.ok(slide) unless starter.drawing

        @take.call(account_id, starter.drawing).map { |picture| slide.with(pictures: [picture]) }
      end
    end
  end
end
