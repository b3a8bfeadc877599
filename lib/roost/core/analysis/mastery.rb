# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Who has a standard or subtopic, by all that each was asked of it (rules.md, who has it).
      class Mastery
        LINE = CatchUp::LINE
        LINES = (1/2r..1r)
        ENOUGH = 3 # marks

        # One mark that somebody earned on a question about it.
        Earned = Struct.new(:student_id, :mark, :weight, :session_id, :slide_id, keyword_init: true)
        # state:: :has, :not_yet or :too_little; share:: Rational; interval:: Array(Float, Float) of 95 %
        # earned:: Array of Earned
        Cell = Struct.new(:state, :share, :interval, :earned, keyword_init: true) do
          # How much evidence there is.
          def marks = earned.length
        end

        # @param earned [Array<Earned>] of one student on one thing, at least one
        # @param line [Rational] from which share on they have it
        # @param steps [Array<Step>, nil]
        # @return [Cell]
        def self.cell(earned, line: LINE, steps: nil)
          weight = earned.sum(&:weight)
          sum = Step.note(steps, :weighted_sum, earned.sum { |each| each.mark * each.weight }, questions: earned.length)
          share = Step.note(steps, :weighted_share, sum / weight, sum: sum, weight: weight)
          right = share * earned.length
          interval = Step.note(steps, :interval, Wilson.interval(right, earned.length), right: right, marks: earned.length)
          state = if earned.length < ENOUGH then :too_little
                  else
                    share >= line ? :has : :not_yet
                  end
          Step.note(steps, :has_it, state, share: share, line: line, marks: earned.length)
          Cell.new(state: state, share: share, interval: interval, earned: earned).freeze
        end
      end
    end
  end
end
