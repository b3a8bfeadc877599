# frozen_string_literal: true

module Roost
  module Core
    module Game
      # No style at all: outside of rounds, where a question earns a mark and no points.
      class Plain < Style
        def points? = false
      end
    end
  end
end
