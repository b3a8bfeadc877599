# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # A mark as a teacher gives it (rules.md, marks by hand): in quarters, in points of the question (halves), or by the levels
      # of its rubric. Written "3/4", "p7.5" or "l0,2,1".
      #
      # mark:: Rational 0 to 1; levels:: Array of Integer, or nil
      HandMark = Struct.new(:mark, :levels, keyword_init: true) do
        self::QUARTERS = %w[0 1/4 1/2 3/4 1].freeze
        self::NOT_A_MARK = "A mark is 0, ¼, ½, ¾ or 1."
        self::NOT_POINTS = "Points are a number from 0 to %s, in halves."
        self::NOT_LEVELS = "Choose a level for each criterion."

        # @param written [String]
        # @param prompt [Prompt]
        # @return [Reading] of HandMark, or of nil where nothing is written: it is taken back
        def self.read(written, prompt)
          return Reading.ok(nil) if written.empty?

          case written[0]
          when "p" then points(written[1..], prompt)
          when "l" then of_levels(written[1..], prompt)
          else
            quarter = self::QUARTERS.include?(written)
            quarter ? Reading.ok(new(mark: Rational(written)).freeze) : Reading.refused(self::NOT_A_MARK)
          end
        end

        def self.points(typed, prompt)
          points = NumberText.read(typed).value
          fits = points && prompt.points.positive? && (0..prompt.points).cover?(points) && (points * 2).denominator == 1
          return Reading.refused(format(self::NOT_POINTS, prompt.points)) unless fits

          Reading.ok(new(mark: points / prompt.points).freeze)
        end

        def self.of_levels(typed, prompt)
          levels = typed.split(",", Rubric::CRITERIA + 1).map { |level| Integer(level, 10, exception: false) }
          rubric = prompt.rubric
          return Reading.refused(self::NOT_LEVELS) unless rubric&.fits?(levels)

          Reading.ok(new(mark: rubric.mark(levels), levels: levels.freeze).freeze)
        end
        private_class_method :points, :of_levels

        # As it is written.
        # @return [String]
        def written(prompt)
          return "l#{levels.join(",")}" if levels

          name = mark.denominator == 1 ? mark.numerator.to_s : mark.to_s
          self.class::QUARTERS.include?(name) ? name : "p#{NumberText.show(mark * prompt.points)}"
        end
      end
    end
  end
end
