# frozen_string_literal: true

module Roost
  module Web
    # The network address a request comes from. Headers that a proxy would add are
    # believed only where the settings say that there is one: anybody can send them.
    module Address
      # @param request [Rack::Request]
      # @return [String]
      def self.of(request)
        Roost.settings.behind_proxy? ? request.ip : request.env["REMOTE_ADDR"].to_s
      end
    end
  end
end
