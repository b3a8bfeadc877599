# frozen_string_literal: true

module Roost
  module Live
    module Audiences
      # Class screens: all of a session show the same, whenever that has changed.
      class Screen < Audience
        def surface = :screen

        def mark(moment) = Core::Session::Views.screen(moment)

        private

        def fragment(view, renderer, now) = renderer.screen(view, now)
      end
    end
  end
end
