# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # Every student likes another turn.
        class Simulation < Kinds::Simulation
          def simulate(_student, random) = { "turn" => random.rand(10) }
        end
      end
    end
  end
end
