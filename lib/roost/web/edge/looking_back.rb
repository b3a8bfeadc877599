# frozen_string_literal: true

require "net/http"
require "socket"

module Roost
  module Web
    # Hands on whatever looks back (results, exports, assignments, what to bring back) to a process of its own behind a Unix
    # socket (config/lookback.rb), so that no lesson waits for what is worked out there.
    class LookingBack
      PATHS = %r{\A/(?:results|assignments)(?:/|\z)|\A/classes/(?:\d+/)?(?:bring-back|roster\.zip|students\.csv)\z|
                 \A/lessons/\d+/questions\.(?:csv|xlsx)\z}x
      # At a time in one web process.
      MOST = 12
      PATIENCE = 60 # seconds
      BUSY = "Many people are looking at results just now. Try again in a few seconds."
      AWAY = "Results can't be shown for a moment. Nothing is lost; try again in a few seconds."
      # Headers of a single connection. Source: RFC 9110, section 7.6.1.
      HOP = %w[connection keep-alive transfer-encoding te trailer upgrade proxy-connection].freeze

      # A response as it comes, and the socket it comes by.
      class Body
        def initialize(socket, response, done)
          @socket = socket
          @response = response
          @done = done
        end

        def each(&block) = @response.reading_body(@socket, true) { @response.read_body(&block) }

        def close
          @socket.close unless @socket.closed?
          @done&.call
          @done = nil
        end
      end

      # @param socket [String] its path
      def initialize(app, socket:)
        @app = app
        @socket = socket
        @under_way = 0
        @lock = Mutex.new
      end

      def call(env)
        return @app.call(env) unless PATHS.match?(env["PATH_INFO"])
        return later(BUSY) unless begun?

        begin
          answer = handed_on(env)
        ensure
          ended unless answer
        end
      rescue SystemCallError, IOError, Net::ReadTimeout, Net::WriteTimeout, Net::HTTPBadResponse
        later(AWAY)
      end

      private

      def begun? = @lock.synchronize { @under_way < MOST && (@under_way += 1) }

      def ended = @lock.synchronize { @under_way -= 1 }

      def later(sentence) = RequestFilter.refusal(503, sentence).tap { |_, headers, _| headers["retry-after"] = "3" }

      def handed_on(env)
        socket = Net::BufferedIO.new(UNIXSocket.new(@socket), read_timeout: PATIENCE, write_timeout: PATIENCE)
        ask(socket, env)
        response = Net::HTTPResponse.read_new(socket)
        headers = response.to_hash.except(*HOP).transform_values { |values| values.length > 1 ? values : values.first }
        [response.code.to_i, headers, Body.new(socket, response, method(:ended))]
      end

      def ask(socket, env)
        sent = body(env["rack.input"])
        query = env["QUERY_STRING"].to_s
        path = env["PATH_INFO"] + (query.empty? ? "" : "?#{query}")
        lines = headers(env).merge("content-length" => sent.bytesize, "connection" => "close").map { |pair| pair.join(": ") }
        socket.write(["#{env["REQUEST_METHOD"]} #{path} HTTP/1.1", *lines, "", ""].join("\r\n"))
        socket.write(sent) unless sent.empty?
      end

      # What stands in front has read it already.
      def body(input)
        input.rewind if input.respond_to?(:rewind)
        input&.read.to_s
      end

      def headers(env)
        own = env.select { |name, _| name.start_with?("HTTP_") }
        said = own.transform_keys { |name| name.delete_prefix("HTTP_").tr("_", "-").downcase }
        said["content-type"] = env["CONTENT_TYPE"] if env["CONTENT_TYPE"]
        said.except(*HOP, "version")
      end
    end
  end
end
