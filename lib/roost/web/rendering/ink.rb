# frozen_string_literal: true

require "json"

module Roost
  module Web
    # What the teacher's pen has left on a page, for whoever comes to it.
    module Ink
      module_function

      # Answers with the strokes of the page that is asked for ("page"), if the pen has been there.
      # @param app [App]
      # @param row [Store::Sessions::Row]
      def strokes(app, row)
        page = app.text("page").to_s
        app.content_type :json
        app.headers "cache-control" => "no-store"
        return "[]" unless row.state.inked.include?(page)

        JSON.generate(Store::Ink.new.of(row.id, page).map(&:to_h))
      end
    end
  end
end
