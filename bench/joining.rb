# frozen_string_literal: true

module Bench
  # Fifteen hundred devices come within twenty seconds: each joins, fetches its page with all that
  # belongs to it, opens its stream and hears something.
  class Joining
    include Asking

    DEVICES = 1500
    SPREAD = 20.0
    AT_A_TIME = 48
    GOALS = { join_1500_s: "at most 25", join_cpu_ms: "at most 22" }.freeze

    # @param server [Server]
    # @param session [Store::Sessions::Row] with room for all
    def initialize(server, session)
      @server = server
      @code = session.code
    end

    # @return [Hash{Symbol=>Numeric}] seconds until the last one is there, and CPU time of a device, PostgreSQL's with it
    def call
      seconds = nil
      cpu = Cpu::Meter.new(@server).whole { seconds = all_come }
      { join_1500_s: seconds.round(1), join_cpu_ms: (cpu * 1000 / DEVICES).round(1) }
    end

    private

    # @return [Float] seconds until the last one is there
    def all_come
      waiting = Queue.new
      began = Bench.clock
      DEVICES.times { |number| waiting << [number, began + (number * SPREAD / DEVICES)] }
      streams = Queue.new
      Array.new(AT_A_TIME) { Thread.new { join_some(waiting, streams) } }.each(&:join)
      Bench.clock - began
    ensure
      streams&.length&.times { streams.pop.close }
    end

    def join_some(waiting, streams)
      loop do
        number, due = waiting.pop(true)
        sleep([due - Bench.clock, 0].max)
        streams << arrive(number)
      end
    rescue ThreadError
      nil
    end

    def connect = TCPSocket.new(Server::HOST, @server.port)

    # @return [TCPSocket] its stream
    def arrive(number)
      socket = connect
      head, = ask(socket, "POST /join", { code: @code, name: "Student #{number}" })
      place = head[%r{^location: (?:http://[^/]+)?(\S+)}i, 1] or raise "not let in: #{head.lines.first}"
      _, page = ask(socket, "GET #{place}")
      page.scan(%r{(?:href|src)="(/assets/[^"]+)"}).flatten.uniq.each do |path|
        head, = ask(socket, "GET #{path}", packed: true)
        socket = connect if head.match?(/^connection: close/i) # a large one
      end
      socket.write("GET #{page[/data-stream="([^"]+)"/,
                               1]} HTTP/1.1\r\nHost: #{Server::HOST}\r\nAccept: text/event-stream\r\n\r\n")
      text = +""
      text << socket.readpartial(65_536) until text.include?("data: <")
      socket
    end
  end
end
