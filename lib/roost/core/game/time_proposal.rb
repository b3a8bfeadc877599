# frozen_string_literal: true

module Roost
  module Core
    module Game
      # The time limit that is proposed for a question, by its kind and what it has of parts. In a round reading has a time of its
      # own; elsewhere it is part of the limit.
      module TimeProposal
        STEP = 5
        MOST = 600

        # @param slide [Slide] with a question
        # @param in_round [Boolean]
        # @return [Integer] seconds, a multiple of STEP
        def self.of(slide, in_round:)
          needed = slide.prompt.seconds_to_think + (in_round ? 0 : Points.reading_time(slide.reading_words))
          [(needed / STEP.to_r).ceil * STEP, MOST].min
        end
      end
    end
  end
end
