# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Figures of lists of numbers, with the steps by which they are worked out.
      module Statistics
        # @param values [Array<Numeric>] at least one
        # @return [Numeric]
        def self.mean(values) = values.sum / values.length

        # Of a sample: the sum of squares is divided by one less than there are.
        # @param values [Array<Numeric>] at least two
        # @return [Numeric]
        def self.variance(values)
          mean = mean(values)
          values.sum { |value| (value - mean)**2 } / (values.length - 1)
        end

        # The product-moment correlation (K. Pearson, 1895).
        # @param pairs [Array<Array(Numeric, Numeric)>]
        # @param steps [Array<Step>, nil]
        # @return [Float, nil] nil where one of both does not vary
        def self.correlation(pairs, steps: nil)
          spread = pairs.transpose.map { |values| Math.sqrt(variance(values)) }
          return nil if spread.any?(&:zero?)

          means = pairs.transpose.map { |values| mean(values) }
          together = pairs.sum { |one, other| (one - means[0]) * (other - means[1]) } / (pairs.length - 1)
          Step.note(steps, :together, together.to_f, students: pairs.length)
          Step.note(steps, :correlation, (together / (spread[0] * spread[1])).clamp(-1.0, 1.0),
                    together: together.to_f, spread: spread[0], rest_spread: spread[1])
        end
      end
    end
  end
end
