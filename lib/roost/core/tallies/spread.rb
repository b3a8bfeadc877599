# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # How numbers are spread (rules.md, tallies). Exact as long as the numbers are.
      #
      # numbers:: in ascending order
      # outliers:: those outside [Q1 − 1.5 IQR, Q3 + 1.5 IQR] (Tukey)
      # axis::    round positions from below the least to above the greatest
      # bins::    [Bin], each closed below and open above, the last one closed
      Spread = Struct.new(:numbers, :mean, :median, :q1, :q3, :outliers, :axis, :bins, keyword_init: true) do
        self::Bin = Struct.new(:from, :to, :count, keyword_init: true)
        self::BINS = (5..20)
        self::STEPS = [1r, 2r, 5r / 2, 5r].freeze
        # Up to this many numbers each is shown by itself.
        self::DOTS = 40

        # @param numbers [Array<Rational>]
        # @return [Spread, nil] nil of no numbers
        def self.of(numbers) = of_counts(numbers.tally)

        # Many give the same number: what is exact is slow, and needs doing once for each.
        # @param counts [Hash{Rational=>Integer}] how often each number was given
        # @return [Spread, nil] nil of no numbers
        def self.of_counts(counts)
          return nil if counts.empty?

          ascending = counts.sort
          sorted = ascending.flat_map { |number, count| [number] * count }
          q1, median, q3 = [1r / 4, 1r / 2, 3r / 4].map { |share| quantile(sorted, share) }
          mean = ascending.sum { |number, count| number * count } / sorted.length
          new(numbers: sorted, mean: mean, median: median, q1: q1, q3: q3, outliers: outliers(sorted, q1, q3),
              bins: bins(sorted, q3 - q1), axis: axis(sorted.first, sorted.last)).freeze
        end

        def self.outliers(sorted, first, third)
          reach = (third - first) * 3 / 2
          inside = sorted.bsearch_index { |number| number >= first - reach }
          beyond = sorted.bsearch_index { |number| number > third + reach } || sorted.length
          sorted[0...inside] + sorted[beyond..]
        end

        # Linear interpolation, type 7 of Hyndman and Fan (1996).
        # @param sorted [Array<Rational>] not empty
        # @param share [Rational] 0 to 1
        def self.quantile(sorted, share)
          place = (sorted.length - 1) * share
          below = sorted[place.floor]
          below + ((sorted[place.ceil] - below) * (place - place.floor))
        end

        # The least of 1, 2, 2.5, 5 × 10ⁿ that is not below a width.
        def self.friendly(width)
          power = 10r**Math.log10(width.to_f).floor
          [power, power * 10].each { |ten| self::STEPS.each { |step| return step * ten if step * ten >= width } }
        end

        # Freedman and Diaconis (1981): width 2 IQR / n^(1/3), then a friendly one that gives
        # 5 to 20 bins.
        def self.bins(sorted, iqr)
          low, high = sorted.values_at(0, -1)
          return [self::Bin.new(from: low - (1r / 2), to: high + (1r / 2), count: sorted.length).freeze] if low == high

          width = 2 * iqr / Rational(Math.cbrt(sorted.length).to_s)
          count = width.zero? ? self::BINS.max : ((high - low) / width).ceil.clamp(self::BINS.min, self::BINS.max)
          step = friendly((high - low) / count)
          step = wider(step) while edges(low, high, step).length - 1 > self::BINS.max
          step = narrower(step) while edges(low, high, step).length - 1 < self::BINS.min
          count_in(sorted, edges(low, high, step))
        end

        def self.narrower(step) = friendly(step * 2 / 5)

        def self.wider(step) = friendly(step * 6 / 5)

        def self.edges(low, high, step)
          first = (low / step).floor
          last = [(high / step).ceil, first + 1].max
          (first..last).map { |place| place * step }
        end

        def self.count_in(sorted, edges)
          starts = edges[0..-2].map { |edge| sorted.bsearch_index { |number| number >= edge } || sorted.length }
          counts = [*starts, sorted.length].each_cons(2).map { |from, to| to - from }
          edges.each_cons(2).zip(counts).map { |(from, to), count| self::Bin.new(from: from, to: to, count: count).freeze }
        end

        def self.axis(low, high)
          return [low - 1, low, low + 1] if low == high

          edges(low, high, friendly((high - low) / 6))
        end
        private_class_method :outliers, :friendly, :bins, :narrower, :wider, :edges, :count_in, :axis
      end
    end
  end
end
