# frozen_string_literal: true

module Roost
  module Operations
    # Cards of an assignment's boards that wait until the teacher lets all see them.
    class WaitingCards
      # @param row [Store::Sessions::Row]
      # @return [Hash{Core::Slide=>Integer}] boards that are open or were, with how many wait
      def call(row)
        slides = Store::Sessions.new.lesson_of(row).prompts
        boards = slides.select { |slide| slide.prompt.board? && row.state.openings.key?(slide.id) }
        boards.to_h { |slide| [slide, slide.prompt.waiting(Store::Records.new.at_slide(row, slide.id).tally(slide.id))] }
      end
    end
  end
end
