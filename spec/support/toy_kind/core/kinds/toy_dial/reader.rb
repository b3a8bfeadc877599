# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # Reads what the dial says.
        class Reader < Kinds::Reader
          def read(raw, _names = nil)
            turn = Integer(field(raw, "turn").to_s, 10, exception: false)
            turn.nil? || turn.between?(0, 9) ? Reading.ok({ "turn" => turn }) : Reading.refused("The dial goes to 9.")
          end

          def blank_answer?(value) = value["turn"].nil?
        end
      end
    end
  end
end
