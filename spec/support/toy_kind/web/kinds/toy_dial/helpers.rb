# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module ToyDial
        # What the toy's views call.
        module Helpers
          def dial_words(turn) = "turned to #{turn} of 9"
        end
      end
    end
  end
end
