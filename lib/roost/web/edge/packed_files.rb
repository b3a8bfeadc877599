# frozen_string_literal: true

require "rack"

module Roost
  module Web
    # Hands out built files, packed where the browser takes that: they were packed once, when they were
    # built (bin/assets). They carry a fingerprint in their name and are good for ever.
    class PackedFiles
      FOREVER = "public, max-age=31536000, immutable"

      # @param folder [String]
      def initialize(folder)
        @folder = folder
        @files = Rack::Files.new(folder, "cache-control" => FOREVER)
      end

      def call(env)
        path = env["PATH_INFO"]
        return @files.call(env) unless packed?(path) && takes?(env)

        status, headers, body = @files.call(env.merge("PATH_INFO" => "#{path}.gz"))
        type = Rack::Mime.mime_type(File.extname(path))
        [status, headers.merge("content-type" => type, "content-encoding" => "gzip", "vary" => "accept-encoding"), body]
      end

      private

      def packed?(path) = path.match?(%r{\A/[\w.-]+\z}) && File.exist?(File.join(@folder, "#{path}.gz"))

      def takes?(env) = Rack::Request.new(env).accept_encoding.any? { |name, weight| name == "gzip" && weight.positive? }
    end
  end
end
