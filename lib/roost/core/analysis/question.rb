# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # One question of a session, looked back on: over the seats that reached it.
      #
      # facility:: mean mark, Rational, nil when nothing is marked (rules.md)
      # median_seconds:: of those who answered, nil when nobody did
      Question = Struct.new(:slide, :reached, :answered, :facility, :median_seconds, keyword_init: true) do
        # @param slide [Slide]
        # @param outcomes [Array<Session::Outcome>] one a seat
        def self.of(slide, outcomes)
          reached = outcomes.reject { |outcome| outcome.status == :not_reached }
          marks = reached.filter_map(&:mark)
          new(slide: slide, reached: reached.length, answered: reached.count { |outcome| outcome.answer&.readable? },
              facility: (marks.sum / marks.length if marks.any?),
              median_seconds: median(reached.filter_map(&:seconds))).freeze
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
