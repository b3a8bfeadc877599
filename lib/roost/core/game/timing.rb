# frozen_string_literal: true

module Roost
  module Core
    module Game
      # The clock of a question in a game round: seconds to read, which cost nothing, and after them seconds to think
      # (rules.md, points).
      Timing = Struct.new(:reading, :thinking) do
        # @param slide [Slide] with a question
        # @param rules [Session::Rules]
        # @return [Timing, nil] nil where answering is not timed
        def self.of(slide, rules)
          limit = slide.prompt.time_limit
          return nil unless limit
          return new(Points.reading_time(slide.reading_words), limit).freeze if rules.reading_first?

          reading = Points.reading_within(limit, slide.words)
          new(reading, limit - reading).freeze
        end

        # Seconds until the deadline.
        # @param factor [Rational] of a seat's time
        # @return [Numeric]
        def total(factor = 1) = factor == 1 ? reading + thinking : ((reading + thinking) * factor).to_f
      end
    end
  end
end
