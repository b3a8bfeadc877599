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
        # @param one [Array<Float>]
        # @param other [Array<Float>] as many
        # @param steps [Array<Step>, nil]
        # @return [Float, nil] nil where one of both does not vary
        def self.correlation(one, other, steps: nil)
          means = [mean(one), mean(other)]
          squares = [one, other].zip(means).map { |values, mean| values.sum { |value| (value - mean)**2 } }
          return nil if squares.any? { |sum| sum < TINY }

          less = one.length - 1
          place = -1
          together = one.sum { |value| (value - means[0]) * (other[place += 1] - means[1]) } / less
          spread = squares.map { |sum| Math.sqrt(sum / less) }
          Step.note(steps, :together, together, students: one.length)
          Step.note(steps, :correlation, (together / (spread[0] * spread[1])).clamp(-1.0, 1.0),
                    together: together, spread: spread[0], rest_spread: spread[1])
        end

        # Of what does not vary, as far as floating-point numbers tell.
        TINY = 1e-12
        private_constant :TINY
      end
    end
  end
end
