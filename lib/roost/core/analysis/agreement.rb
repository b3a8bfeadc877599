# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # How far two who mark the same answers agree (rules.md, two who mark): the share of answers with the same level, and
      # Cohen's κ (1960), weighted linearly where there are more than two levels (1968).
      class Agreement
        LEAST = 10 # answers in common

        # @param pairs [Array<Array(Integer, Integer)>] levels that one and the other gave, from 0
        # @param levels [Integer] how many there are, at least two
        def initialize(pairs, levels:)
          @pairs = pairs
          @levels = levels
        end

        # @return [Integer] answers in common
        def many = @pairs.length

        def enough? = many >= LEAST

        # Share of answers on which both gave the same.
        # @param steps [Array<Step>, nil]
        # @return [Rational, nil] nil of too few
        def share(steps: nil)
          return nil unless enough?

          same = @pairs.count { |one, other| one == other }
          Step.note(steps, :agreement, Rational(same, many), same: same, answers: many)
        end

        # @param steps [Array<Step>, nil]
        # @return [Rational, nil] nil of too few, and where by chance alone both would always give the same
        def kappa(steps: nil)
          return nil unless enough?

          observed = @pairs.sum { |one, other| weight(one, other) } / many
          ones, others = @pairs.transpose.map(&:tally)
          expected = ones.sum { |one, a| others.sum { |other, b| weight(one, other) * a * b } } / (many**2)
          return nil if expected == 1

          Step.note(steps, :by_chance, expected, observed: observed)
          Step.note(steps, :kappa, (observed - expected) / (1 - expected), observed: observed, expected: expected)
        end

        private

        # 1 of the same level, 0 of the farthest apart.
        def weight(one, other) = 1 - Rational((one - other).abs, @levels - 1)
      end
    end
  end
end
