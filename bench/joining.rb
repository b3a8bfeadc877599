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
      page = Net::HTTP.start(Server::HOST, @server.port) do |http|
        form = URI.encode_www_form(code: @code, name: "Student #{number}")
        place = http.post("/join", form, { "content-type" => "application/x-www-form-urlencoded" })["location"]
        raise "not let in" unless place

        page = http.get(URI(place).path).body
        page.scan(%r{(?:href|src)="(/assets/[^"]+)"}).flatten.uniq.each { |path| http.get(path, { "accept-encoding" => "gzip" }) }
        page
      end
      open_stream(page[/data-stream="([^"]+)"/, 1])
    end

    def open_stream(path)
      socket = TCPSocket.new(Server::HOST, @server.port)
      socket.write("GET #{path} HTTP/1.1\r\nHost: #{Server::HOST}\r\nAccept: text/event-stream\r\n\r\n")
      text = +""
      text << socket.readpartial(65_536) until text.include?("data: <")
      socket
    end
  end
end
