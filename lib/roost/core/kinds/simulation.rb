# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # What simulated students answer (rules.md, simulated students).
      class Simulation < Part
        # @param student [Practice::Student]
        # @param random [Random]
        # @return [Hash] a value
        def simulate(_student, _random) = raise(NotImplementedError)
      end
    end
  end
end
