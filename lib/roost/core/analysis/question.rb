# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # One question of a session, looked back on: over the seats that reached it.
      #
      # reached, answered:: how many did
      # facility:: mean mark, Rational, nil when nothing is marked (rules.md)
      Question = Struct.new(:slide, :reached, :answered, :facility, keyword_init: true) do
        # @param slide [Slide]
        # @param outcomes [Array<Session::Outcome>] one a seat
        def self.of(slide, outcomes)
          # By the object, of which many may have the same.
          alike = outcomes.each_with_object(Hash.new(0).compare_by_identity) { |outcome, many| many[outcome] += 1 }
          alike.reject! { |outcome, _| outcome.status == :not_reached }
          marked = alike.select { |outcome, _| outcome.mark }
          answered = alike.select { |outcome, _| outcome.answer&.readable? }
          new(slide: slide, reached: alike.values.sum, answered: answered.values.sum,
              facility: (marked.sum { |outcome, many| outcome.mark * many } / marked.values.sum if marked.any?)).freeze
        end

        # @return [Numeric, nil]
        def self.median(values)
          return nil if values.empty?

          sorted = values.sort
          (sorted[(sorted.length - 1) / 2] + sorted[sorted.length / 2]) / 2.0
        end
      end
    end
  end
end
