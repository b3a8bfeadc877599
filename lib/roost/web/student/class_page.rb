# frozen_string_literal: true

require "rqrcode"

module Roost
  module Web
    # The page of a class, at which its students see what is on. The code in the address is all it is known by.
    class ClassPage < App
      get "/:code.svg" do |code|
        found = found(code)
        content_type "image/svg+xml"
        RQRCode::QRCode.new("#{Roost.settings.base_url}/class/#{found.code}")
                       .as_svg(module_size: 8, use_path: true, viewbox: true, color: "1e1b2e", fill: "fffdf8", offset: 16)
      end

      get "/:code" do |code|
        found = found(code)
        sessions = Store::Sessions.new
        page("front/class", title: found.name, layout: "layouts/plain", bundle: "seat", found: found,
                            sessions: sessions.running_for(found.id).map { |id| sessions.find(id) })
      end

      helpers do
        def found(code)
          found = Operations::ClassCode.page(code[0, 40])
          found.ok? ? found.value : halt(404, error_page("That class isn't known", found.reason))
        end
      end
    end
  end
end
