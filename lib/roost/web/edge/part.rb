# frozen_string_literal: true

module Roost
  module Web
    # Whether a page asks, for a part of itself, and not a person for a page.
    module Part
      module_function

      # @param env [Hash] Rack environment
      def asked?(env) = htmx?(env) || ![nil, "navigate"].include?(env["HTTP_SEC_FETCH_MODE"])

      # Whether what is answered goes into the page as it is.
      def htmx?(env) = env["HTTP_HX_REQUEST"] == "true"
    end
  end
end
