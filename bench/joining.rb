# frozen_string_literal: true

module Bench
  # Fifteen hundred devices come within twenty seconds: each joins, fetches its page with all that
  # belongs to it, opens its stream and hears something.
  class Joining
    DEVICES = 1500
    SPREAD = 20.0
    AT_A_TIME = 48
    GOALS = { join_1500_s: "at most 25" }.freeze

    # @param server [Server]
    # @param session [Store::Sessions::Row] with room for all
    def initialize(server, session)
      @server = server
      @code = session.code
    end

    # @return [Hash{Symbol=>Numeric}] seconds until the last one is there
    def call
      waiting = Queue.new
      began = Bench.clock
      DEVICES.times { |number| waiting << [number, began + (number * SPREAD / DEVICES)] }
      streams = Queue.new
      Array.new(AT_A_TIME) { Thread.new { join_some(waiting, streams) } }.each(&:join)
      { join_1500_s: (Bench.clock - began).round(1) }
    ensure
      streams&.length&.times { streams.pop.close }
    end

    private

    def join_some(waiting, streams)
      loop do
        number, due = waiting.pop(true)
        sleep([due - Bench.clock, 0].max)
        streams << arrive(number)
      end
    rescue ThreadError
      nil
    end

    # @return [TCPSocket] its stream
    def arrive(number)
      socket = TCPSocket.new(Server::HOST, @server.port)
      form = URI.encode_www_form(code: @code, name: "Student #{number}")
      head, = ask(socket, "POST /join", form)
      place = head[%r{^location: (?:http://[^/]+)?(\S+)}i, 1] or raise "not let in: #{head.lines.first}"
      _, page = ask(socket, "GET #{place}")
      page.scan(%r{(?:href|src)="(/assets/[^"]+)"}).flatten.uniq.each { |path| ask(socket, "GET #{path}", packed: true) }
      socket.write("GET #{page[/data-stream="([^"]+)"/,
                               1]} HTTP/1.1\r\nHost: #{Server::HOST}\r\nAccept: text/event-stream\r\n\r\n")
      text = +""
      text << socket.readpartial(65_536) until text.include?("data: <")
      socket
    end

    # One request over a connection that stays open, with as little work here as can be.
    # @return [Array(String, String)] head and body
    def ask(socket, line, form = nil, packed: false)
      headers = "Host: #{Server::HOST}\r\n#{"Accept-Encoding: gzip\r\n" if packed}"
      headers += "Content-Type: application/x-www-form-urlencoded\r\nContent-Length: #{form.bytesize}\r\n" if form
      socket.write("#{line} HTTP/1.1\r\n#{headers}\r\n#{form}")
      text = +""
      text << socket.readpartial(65_536) until (ending = text.index("\r\n\r\n"))
      head = text.slice!(0, ending + 4)
      length = head[/^content-length: (\d+)/i, 1].to_i
      text << socket.readpartial(65_536) while text.bytesize < length
      [head, text]
    end
  end
end
