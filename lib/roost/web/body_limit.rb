# frozen_string_literal: true

module Roost
  module Web
    # Refuses requests that say they are larger than anything the program takes, before
    # they are read into memory or onto the disk.
    class BodyLimit
      def initialize(app, most)
        @app = app
        @most = most
      end

      def call(env)
        return @app.call(env) unless env["CONTENT_LENGTH"].to_i > @most

        [413, { "content-type" => "text/plain" }, ["That is too large: 10 MB is the most.\n"]]
      end
    end
  end
end
