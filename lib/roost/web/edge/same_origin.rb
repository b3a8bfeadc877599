# frozen_string_literal: true

require "rack/protection"

module Roost
  module Web
    # Forms of signed-in teachers carry a token, so that no other site can press their buttons.
    class SameOrigin < Rack::Protection::AuthenticityToken
      def deny(_env)
        [403, { "content-type" => "text/plain; charset=utf-8" },
         ["This page had been open too long. Go back, reload it, and try again.\n"]]
      end
    end
  end
end
