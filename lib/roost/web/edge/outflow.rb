# frozen_string_literal: true

require "socket"

module Roost
  module Web
    # Hands out whatever may be more than a connection's buffer holds, as fast as each device takes it and without a thread
    # for each: one that asks for much and reads nothing holds up nobody. Small answers go out at once, and a device that has
    # not read the one before gets no other.
    class Outflow
      # What the buffer of a connection surely holds when it is empty, and what may be in it when more is asked for; bytes.
      AT_ONCE = 32 * 1024
      UNREAD = 16 * 1024
      # Bytes that a connection holds and the other side has not taken. Source: Linux, tcp(7), SIOCOUTQ.
      SIOCOUTQ = 0x5411

      # @param pump [Pump]
      def initialize(app, pump: Pump.new)
        @app = app
        @pump = pump
      end

      def call(env)
        return hang_up(env) if unread(env) > UNREAD

        env.delete("HTTP_RANGE") if env["HTTP_RANGE"].to_s.include?(",")
        status, headers, body = @app.call(env)
        return [status, headers, body] unless large?(env, headers, body)

        source = body.respond_to?(:ranges) ? FromFile.new(body) : Held.new(body)
        return [status, headers, source.parts] if source.is_a?(Held) && source.size <= AT_ONCE

        address = Address.of(Rack::Request.new(env))
        pour = ->(socket) { @pump.pour(socket, source, address: address) }
        [status, headers.merge("content-length" => source.size.to_s, "connection" => "close", "rack.hijack" => pour), []]
      end

      private

      def unread(env)
        socket = env["puma.socket"]
        return 0 unless socket.is_a?(TCPSocket)

        count = [0].pack("i")
        socket.ioctl(SIOCOUTQ, count)
        count.unpack1("i")
      rescue SystemCallError, IOError
        0
      end

      # Nothing is said: it would not be read.
      def hang_up(env)
        env["rack.hijack"].call.close
        [-1, {}, []]
      end

      # Whether it may be too much for the buffer: by its length, where that is said.
      def large?(env, headers, body)
        return false if !env["rack.hijack?"] || env["REQUEST_METHOD"] == "HEAD" || headers.key?("rack.hijack")
        return body.sum(&:bytesize) > AT_ONCE if body.is_a?(Array)

        said = headers["content-length"]
        body.respond_to?(:each) && (said.nil? || said.to_i > AT_ONCE)
      end
    end
  end
end
