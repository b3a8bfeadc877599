# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          # In percent of the way from the left and from the top.
          def plain(value)
            value["spots"].map do |spot|
              place = "#{(spot["x"] * 100).round} % across, #{(spot["y"] * 100).round} % down"
              spot["label"].to_s.empty? ? place : "#{spot["label"]}: #{place}"
            end.join("; ")
          end
        end
      end
    end
  end
end
