# frozen_string_literal: true

require "rack/protection"

module Roost
  module Web
    # Forms of signed-in teachers carry a token, so that no other site can press their buttons.
    class SameOrigin < Rack::Protection::AuthenticityToken
      include Rendering

      TOO_LONG = "This page had been open too long. Go back, reload it, and try again."

      # A page of ours goes on with the token that comes along (assets/js/shared/token.js): its teacher has signed in anew, in
      # another window. Other sites can't read it.
      def deny(env)
        [403, { "content-type" => "text/html; charset=utf-8", "x-csrf-token" => self.class.token(session(env)) }, [words(env)]]
      end

      default_reaction :deny

      private

      def words(env)
        return partial("refusal", reason: TOO_LONG) if Part.htmx?(env)

        page("refused", title: "That didn't work", layout: "layouts/plain", reason: TOO_LONG)
      end
    end
  end
end
