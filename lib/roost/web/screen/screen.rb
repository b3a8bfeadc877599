# frozen_string_literal: true

module Roost
  module Web
    # The class screen, at an address of its own that needs no sign-in, so that it can
    # run on another device. Shows only what the teacher has put there.
    class Screen < App
      include Brief

      get "/:key" do |key|
        record = Store::Sessions.new.by_screen_key(key) || not_found
        view = Core::Session::Views.screen(Store::Moments.new.of(record))
        page("screen/show", title: record.title, layout: "layouts/plain", bundle: "screen", theme: view.theme, view: view,
                            now: record.now, key: key)
      end
    end
  end
end
