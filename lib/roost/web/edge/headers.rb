# frozen_string_literal: true

module Roost
  module Web
    # Puts the security headers on every answer that does not bring its own.
    class Headers
      def initialize(app, headers)
        @app = app
        @headers = headers
      end

      def call(env)
        status, headers, body = @app.call(env)
        [status, @headers.merge(headers), body]
      end
    end
  end
end
