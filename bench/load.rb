# frozen_string_literal: true

require "socket"

# What bin/bench measures, and with what.
module Bench
  def self.median(values) = values.sort[values.length / 2]

  def self.clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  # Many event streams held open by one thread: raw sockets, so that the load costs
  # little beside what is measured.
  class Streams
    # @param paths [Array<String>] one stream each
    def initialize(host, port, paths)
      @sockets = paths.map do |path|
        socket = TCPSocket.new(host, port)
        socket.write("GET #{path} HTTP/1.1\r\nHost: #{host}\r\nAccept: text/event-stream\r\n#{yield(path) if block_given?}\r\n")
        socket
      end
      @text = @sockets.to_h { |socket| [socket, +""] }
    end

    # Reads until the block is true of what each stream has sent since the last call.
    # @return [Float] clock time when the last one was
    def wait_until(seconds: 30)
      left = @sockets.dup
      @text.each_value(&:clear)
      ending = Bench.clock + seconds
      until left.empty?
        raise "#{left.length} streams heard nothing" if Bench.clock > ending

        ready, = IO.select(left, nil, nil, 1)
        (ready || []).each do |socket|
          chunk = socket.read_nonblock(1_000_000, exception: false)
          raise "a stream ended" if chunk.nil?

          @text[socket] << chunk unless chunk == :wait_readable
          left.delete(socket) if yield(@text[socket])
        end
      end
      Bench.clock
    end

    def close = @sockets.each(&:close)
  end

  # Requests over a number of kept-alive connections, from one thread.
  class Posts
    # @param connections [Integer] how many at a time
    # @yieldparam number [Integer] of the request, from 0
    # @yieldreturn [Array(String, String)] path and body
    def initialize(host, port, connections, &make)
      @host = host
      @port = port
      @sockets = Array.new(connections) { TCPSocket.new(host, port) }
      @make = make
      @number = -1
    end

    # @return [Float] acknowledged requests a second
    def run(seconds)
      @busy = @sockets.to_h { |socket| [socket, +""] }
      @sockets.each { |socket| ask(socket) }
      began = Bench.clock
      done = 0
      done += answered { |socket| ask(socket) } while Bench.clock < began + seconds
      rate = done / (Bench.clock - began)
      answered { |socket| @busy.delete(socket) } until @busy.empty?
      @sockets.each(&:close)
      rate
    end

    private

    # Reads what has come, and yields each socket whose reply is whole.
    # @return [Integer] how many
    def answered
      ready, = IO.select(@busy.keys, nil, nil, 1)
      (ready || []).count do |socket|
        text = @busy[socket] << socket.readpartial(65_536)
        next unless complete?(text)

        raise "refused: #{text}" unless text.start_with?("HTTP/1.1 20")

        socket = again(socket) if text.match?(/^connection: close/i)
        text.clear
        yield socket
        true
      end
    end

    # A server keeps a connection for so many requests only.
    def again(socket)
      @busy.delete(socket)
      @sockets.delete(socket).close
      TCPSocket.new(@host, @port).tap { |fresh| @busy[@sockets.push(fresh).last] = +"" }
    end

    def ask(socket)
      path, body = @make.call(@number += 1)
      socket.write("POST #{path} HTTP/1.1\r\nHost: #{@host}\r\nContent-Type: application/json\r\n" \
                   "Content-Length: #{body.bytesize}\r\n\r\n#{body}")
    end

    def complete?(text)
      head, body = text.split("\r\n\r\n", 2)
      body && body.bytesize >= head[/content-length: (\d+)/i, 1].to_i
    end
  end
end
