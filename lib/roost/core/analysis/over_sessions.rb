# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # One question over all sessions in which it was asked, by its origin (rules.md, how good the question was).
      class OverSessions
        # Fewer students would be known by their marks.
        LEAST_OF_OTHERS = 5

        # One session. students:: who reached it; earned:: sum of their marks, Rational; discrimination:: Float or nil
        # mine:: whether it is of the teacher who looks; at:: epoch seconds, when it ended
        Asked = Struct.new(:session_id, :slide_id, :students, :earned, :discrimination, :mine, :title, :class_name, :at,
                           keyword_init: true) do
          # @return [Rational] 0 to 1
          def share = earned / students
        end

        # @return [Array<Asked>] the earliest first
        attr_reader :asked

        # @param asked [Array<Asked>] at least one
        def initialize(asked)
          @asked = asked.sort_by { |each| [each.at, each.session_id] }
        end

        def students = asked.sum(&:students)

        # @return [Array(Rational, Rational)] the lowest and the highest share of a session
        def range = asked.map(&:share).minmax

        # Mean mark over all who reached it.
        # @param steps [Array<Step>, nil]
        # @return [Rational]
        def facility(steps: nil)
          sum = Step.note(steps, :sum_of_marks, asked.sum(&:earned), students: students)
          Step.note(steps, :facility, sum / students, sum: sum, students: students)
        end

        # @param steps [Array<Step>, nil]
        # @return [Array(Float, Float)] of 95 %
        def interval(steps: nil)
          sum = asked.sum(&:earned)
          Step.note(steps, :interval, Wilson.interval(sum, students), right: sum, marks: students)
        end

        # The mean of what it was in each session, by how many students reached it there: totals of different sets can't be
        # compared with one another.
        # @param steps [Array<Step>, nil]
        # @return [Float, nil] nil where no session had enough
        def discrimination(steps: nil)
          known = asked.select(&:discrimination)
          return nil if known.empty?

          of = known.sum(&:students)
          mean = known.sum { |each| each.discrimination * each.students } / of
          Step.note(steps, :mean_discrimination, mean, sessions: known.length, students: of)
        end
      end
    end
  end
end
