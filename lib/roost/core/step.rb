# frozen_string_literal: true

module Roost
  module Core
    # One step by which a figure was worked out (rules.md, why this figure). A function that gives a figure notes its steps as
    # it goes, where it is given an Array for them; so a figure and its explanation cannot differ: it is the value of the last.
    #
    # name:: of what was done; numbers:: Hash of name to what went in; value:: what came out
    Step = Struct.new(:name, :numbers, :value) do
      # @param steps [Array, nil] where it is noted
      # @return the value
      def self.note(steps, name, value, **numbers)
        steps << new(name, numbers.freeze, value).freeze if steps
        value
      end
    end
  end
end
