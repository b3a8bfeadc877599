# frozen_string_literal: true

module Roost
  module Web
    # The page of a class, at which its students see what is on. The code in the address is all it is known by.
    class ClassPage < App
      get "/:code.svg" do |code|
        content_type "image/svg+xml"
        QrCodes.svg("#{Roost.settings.base_url}/class/#{known(code).code}")
      end

      get "/:code" do |code|
        klass = known(code)
        sessions = Store::Sessions.new
        page("front/class", title: klass.name, layout: "layouts/plain", bundle: "seat", klass: klass,
                            sessions: sessions.running_for(klass.id).map { |id| sessions.find(id) })
      end

      helpers do
        # @return [Store::Classes::Page]
        def known(code)
          found = Operations::ClassCode.page(code[0, 40])
          found.ok? ? found.value : halt(*JoinLimits.unknown(request), error_page("That class isn't known", found.reason))
        end
      end
    end
  end
end
