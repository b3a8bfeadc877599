# frozen_string_literal: true

module Roost
  module Web
    # The network address a request comes from. What proxies say of it the gate has settled.
    module Address
      # @param request [Rack::Request]
      # @return [String]
      def self.of(request) = request.env["REMOTE_ADDR"].to_s

      # Whether it comes from this machine itself, and through nobody.
      def self.local?(request) = %w[127.0.0.1 ::1].include?(of(request)) && !request.env["roost.forwarded"]
    end
  end
end
