# frozen_string_literal: true

module Roost
  module Live
    module Audiences
      # Desks: all of a session show the same, whenever that has changed.
      class Desk < Audience
        def surface = :desk

        def mark(moment) = Core::Session::Views.desk(moment)

        private

        def fragment(view, renderer, now) = renderer.desk(view, now)
      end
    end
  end
end
