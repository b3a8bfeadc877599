# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :unit

          def plain(value) = value["number"] ? "#{NumberText.show(Rational(value["number"]))} #{unit}".strip : ""
        end
      end
    end
  end
end
