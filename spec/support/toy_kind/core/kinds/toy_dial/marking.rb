# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # Right or wrong.
        class Marking < Kinds::Marking
          def mark(value, **)
            return unless prompt.keyed?

            Rational(value["turn"] == prompt.settings["key"] ? 1 : 0)
          end
        end
      end
    end
  end
end
