# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :blank_answer?, :sorted

          def plain(value) = blank_answer?(value) ? "" : sorted(value).map(&:text).join(" > ")
        end
      end
    end
  end
end
