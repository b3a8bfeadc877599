# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          def plain(value) = value["words"].join(", ")
        end
      end
    end
  end
end
