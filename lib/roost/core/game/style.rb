# frozen_string_literal: true

module Roost
  module Core
    module Game
      # What an answer earns besides its mark, and how a round is played for it (rules.md, styles of round). A style is a
      # subclass in core/game/styles/NAME.rb, found by looking: it says its place among the others, its label, which of the
      # settings of a round it has a use for, and its sentence for a twelve-year-old; and of what stands here, what is otherwise.
      class Style
        # Shares of the points that speed may decide.
        SPEEDS = (0r..1/2r)
        GOALS = (0.05r..1r)
        USUAL_GOAL = 7/10r
        USUAL = "points"

        class << self
          # @return [Array<Class>] all of them, in the order in which they are offered
          def all = @all ||= Styles.constants.map { |name| Styles.const_get(name) }.sort_by(&:place).freeze

          # @param name [String, nil] as a lesson or a session has it
          # @return [Class] the usual one, where there is no such style
          def named(name) = all.find { |style| style.name_of == name } || named(USUAL)

          # Whether there is a style of that name.
          def known?(name) = all.any? { |style| style.name_of == name }

          # Of the settings of a round, :speed and :goal, those that this style has a use for.
          def settings = []

          # The style of that name.
          # @param speed [Numeric] share of the points that speed decides
          # @param goal [Numeric] share of all points that the class is to reach
          # @return [Style]
          def make(name, speed:, goal: USUAL_GOAL) = named(name).new(speed: speed.to_r, goal: goal.to_r)

          # Its name in documents.
          def name_of = name.split("::").last.downcase
        end

        attr_reader :speed, :goal

        def initialize(speed: 0r, goal: USUAL_GOAL)
          @speed = speed.clamp(SPEEDS.min, SPEEDS.max)
          @goal = goal.clamp(GOALS.min, GOALS.max)
          freeze
        end

        def name = self.class.name_of

        # Whether it gives any points.
        def points? = true

        # Whether they depend on how long each took.
        def timed? = false

        # Whether a question closes when its time limit is over.
        def clock? = true

        # Whether seats and teams stand in an order.
        def ranked? = true

        # Whether students say with their answer how sure they are.
        def certainty? = false

        # What an answer would earn, right and wrong, of a student who is that sure.
        # @return [Array(Integer, Integer), nil] nil where that isn't asked
        def at_stake(_points, _sure) = nil

        # @param points [Integer] of the question, for a full mark
        # @param mark [Rational] 0 to 1
        # @param sure [Integer, nil] how sure the student was, 1 to 3
        # @param used [Numeric, nil] seconds, of a seat with extra time divided by its factor
        # @param timing [Timing, nil] the clock of the question
        # @param steps [Array<Step>, nil] to which it is added how they come about
        # @return [Integer]
        def earned(points, mark, steps: nil, **_about)
          Points.for(points: points, mark: mark, seconds: 0, time_limit: nil, speed: 0, steps: steps)
        end

        def ==(other) = other.instance_of?(self.class) && [speed, goal] == [other.speed, other.goal]
      end
    end
  end
end
