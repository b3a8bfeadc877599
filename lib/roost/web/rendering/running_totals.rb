# frozen_string_literal: true

module Roost
  module Web
    # Two lines of running totals, of a round now and then, in a picture of SIZE.
    class RunningTotals
      SIZE = [320, 110].freeze
      LEFT = 10
      ACROSS = 280.0
      GROUND = 100.0
      HIGH = 70.0
      BIRD = [32, 26].freeze # wide, high

      # @param steps [Array<Core::Game::Comparison::Step>] at least one
      def initialize(steps)
        @steps = steps
        @most = [*steps.flat_map { |step| [step.total, step.total_before] }, 1].max
      end

      # @param name [Symbol] :total or :total_before
      # @return [String] of a polyline, from nothing on
      def line(name) = [0, *@steps.map(&name)].each_with_index.map { |points, at| place(at, points).join(",") }.join(" ")

      # @return [Array(Float, Float)] left and top of the bird that sits at the end of the line of now
      def bird
        x, y = place(@steps.length, @steps.last.total)
        [(x - (BIRD[0] / 2) + 2).round(1), (y - BIRD[1] + 2).round(1)]
      end

      private

      def place(at, points)
        [(LEFT + (at * ACROSS / @steps.length)).round(1), (GROUND - (points * HIGH / @most)).to_f.round(1)]
      end
    end
  end
end
