# frozen_string_literal: true

module Roost
  module Core
    module Game
      # A round, question by question against an earlier attempt at it, or against the class's median (rules.md, against
      # yourself). At one's own speed no clock runs: a question earns its points times the mark.
      class Comparison
        # points, before:: of this question, now and then; total, total_before:: so far
        Step = Struct.new(:slide, :points, :before, :total, :total_before, keyword_init: true)
        # Others who have to have answered a question before a median of theirs is told.
        LEAST = 3

        # against:: :yourself, :class, or nil where there is nothing to compare with
        # steps:: [Step], the questions that count for both; points:: of all questions so far; best:: of all attempts
        attr_reader :against, :steps, :points, :best

        # @param mark [Rational]
        # @return [Integer]
        def self.earned(prompt, mark)
          Points.for(points: prompt.points, mark: mark, seconds: 0, time_limit: nil, speed: 0)
        end

        # @param values [Array<Integer>] points of the others
        # @return [Rational, nil] nil of too few
        def self.median(values)
          values.length < LEAST ? nil : Tallies::Spread.quantile(values.sort.map(&:to_r), 1/2r)
        end

        # @param now [Hash{Slide=>Integer}] points so far, in order
        # @param earlier [Array<Hash{String=>Integer}>] slide id to points of each earlier attempt, the latest last
        # @yieldparam slide_id [String]
        # @yieldreturn [Rational, nil] the class's median, asked for only without an earlier attempt
        def initialize(now, earlier)
          before = earlier.last || now.to_h { |slide, _| [slide.id, yield(slide.id)] }.compact
          @points = now.values.sum
          @best = [@points, *earlier.map { |each| each.values.sum }].max
          @steps = steps_of(now.select { |slide, _| before.key?(slide.id) }, before)
          @against = (earlier.any? ? :yourself : :class) if steps.any?
          freeze
        end

        # How much more than then.
        # @return [Numeric]
        def difference = steps.last.total - steps.last.total_before

        private

        def steps_of(now, before)
          total = total_before = 0
          now.map do |slide, points|
            then_points = before.fetch(slide.id)
            Step.new(slide: slide, points: points, before: then_points, total: total += points,
                     total_before: total_before += then_points).freeze
          end.freeze
        end
      end
    end
  end
end
