# frozen_string_literal: true

module Roost
  module Web
    # Refuses requests that say they are larger than what their address takes, before they
    # are read into memory or onto the disk.
    class BodyLimit
      # @param limits [Hash{Regexp=>Integer}] path to most bytes; the first that matches counts
      def initialize(app, limits)
        @app = app
        @limits = limits
        @least = limits.values.min
      end

      def call(env)
        length = env["CONTENT_LENGTH"].to_i
        return @app.call(env) if length <= @least

        most = @limits.find { |path, _| path.match?(env["PATH_INFO"]) }.last
        return @app.call(env) if length <= most

        limit = "#{most / (1024 * 1024)} MB"
        RequestFilter.refusal(413, "That is too large: #{limit} is the most here. Go back, and send less at a time.")
      end
    end
  end
end
