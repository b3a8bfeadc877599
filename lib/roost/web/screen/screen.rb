# frozen_string_literal: true

module Roost
  module Web
    # The class screen, at an address of its own that needs no sign-in, so that it can
    # run on another device. Shows only what the teacher has put there.
    class Screen < App
      include Brief

      get("/:key/ink") { |key| Ink.strokes(self, Store::Sessions.new.by_screen_key(key) || not_found) }

      get "/:key" do |key|
        row = Store::Sessions.new.by_screen_key(key) || not_found
        not_found if row.self_paced
        view = Core::Session::Views.screen(Store::Moments.new.of(row))
        page("screen/show", title: row.title, layout: "layouts/plain", bundle: "screen", theme: view.theme, view: view,
                            now: row.now, key: key, send: nil)
      end
    end
  end
end
