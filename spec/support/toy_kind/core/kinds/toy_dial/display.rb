# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # One answer in words.
        class Display < Kinds::Display
          def plain(value) = "turned to #{value["turn"]}"
        end
      end
    end
  end
end
