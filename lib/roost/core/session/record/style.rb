# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What an answer earns besides its mark (rules.md, styles of round).
      #
      # name:: :plain (no points: outside of rounds), :points (the quicker, the more) or :steady (points, and no clock)
      # speed:: share of the points that speed decides, 0 to 1/2
      Style = Struct.new(:name, :speed) do
        self::PLAIN = new(:plain, 0r).freeze
        self::STEADY = new(:steady, 0r).freeze

        # @param speed [Rational]
        def self.points(speed) = new(:points, speed).freeze

        # Whether it gives any.
        def points? = name != :plain

        # Whether they depend on how long each took.
        def timed? = name == :points
      end
    end
  end
end
