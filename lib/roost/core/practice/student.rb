# frozen_string_literal: true

module Roost
  module Core
    module Practice
      # A simulated student (rules.md): an ability θ ~ N(0,1), a pace and a habit.
      # The same seed gives the same student.
      class Student
        HABITS = %w[steady steady steady steady hasty slow_joiner drops_off comes_back].freeze

        attr_reader :name, :ability, :pace, :habit

        # Box–Muller.
        # @param random [Random]
        # @return [Float] a draw from N(0,1)
        def self.normal(random) = Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand)

        def initialize(name:, random:)
          @name = name
          @ability = Student.normal(random)
          @pace = Math.exp(0.25 * Student.normal(random))
          @habit = HABITS[random.rand(HABITS.length)]
          freeze
        end

        # Rasch: 1/(1+e^(b−θ)), never below guessing.
        # @param difficulty [Float] b
        # @param chance [Float] of a right guess
        def knows?(difficulty, chance:, random:)
          random.rand < [1 / (1 + Math.exp(difficulty - ability)), chance].max
        end

        # Seconds until this student has answered: log-normal around a median.
        # @param median [Numeric] seconds
        def seconds(median, random)
          hurry = habit == "hasty" ? 0.5 : 1.0
          (median * pace * hurry * Math.exp(0.35 * Student.normal(random))).clamp(1.0, median * 3.0)
        end

        # Whether this student, for now, leaves the device alone.
        def absent?(random)
          random.rand < case habit
                        when "drops_off" then 0.25
                        when "comes_back" then 0.12
                        else 0.02
                        end
        end
      end
    end
  end
end
