# frozen_string_literal: true

require "rack"

module Roost
  module Web
    # Hands out built files, packed where the browser takes that: they were packed once, when they were
    # built (bin/assets). They carry a fingerprint in their name and are good for ever. All are kept in
    # memory, which processes share: a class that joins asks for thousands at once.
    class PackedFiles
      FOREVER = "public, max-age=31536000, immutable"
      NONE = [404, { "content-type" => "text/plain" }.freeze, ["Not found"].freeze].freeze

      # @param folder [String]
      def initialize(folder)
        paths = Dir[File.join(folder, "*")].select { |path| File.file?(path) }
        @files = paths.to_h { |path| ["/#{File.basename(path)}", File.binread(path).freeze] }.freeze
      end

      def call(env)
        return [405, { "allow" => "GET, HEAD" }, []] unless %w[GET HEAD].include?(env["REQUEST_METHOD"])

        path = env["PATH_INFO"]
        packed = @files["#{path}.gz"] if takes?(env)
        bytes = packed || @files[path]
        bytes ? found(path, bytes, !packed.nil?, env["REQUEST_METHOD"] == "HEAD") : NONE
      end

      private

      def found(path, bytes, packed, head)
        headers = { "content-type" => Rack::Mime.mime_type(File.extname(path)), "cache-control" => FOREVER,
                    "content-length" => bytes.bytesize.to_s, "vary" => "accept-encoding" }
        headers["content-encoding"] = "gzip" if packed
        [200, headers, head ? [] : [bytes]]
      end

      def takes?(env)
        said = env["HTTP_ACCEPT_ENCODING"]
        !said.nil? && Rack::Utils.q_values(said).any? { |name, weight| name == "gzip" && weight.positive? }
      end
    end
  end
end
