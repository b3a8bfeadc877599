# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          def plain(value) = value["gaps"].map { |filling| filling.empty? ? "–" : filling }.join("; ")
        end
      end
    end
  end
end
