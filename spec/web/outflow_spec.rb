# frozen_string_literal: true

require "net/http"
require "puma"
require "puma/server"
require "timeout"

RSpec.describe Roost::Web::Outflow do
  let(:large) { Random.new(1).bytes(3_000_000) }
  let(:file) { Tempfile.create("birds").tap { |each| each.binmode && each.write(large) && each.flush } }
  let(:app) do
    bytes = large
    path = file.path
    lambda do |env|
      case env["PATH_INFO"]
      when "/large" then [200, {}, bytes.scan(/.{1,70000}/mn)]
      when "/made" then [200, {}, 30.times.lazy.map { |part| bytes.byteslice(part * 100_000, 100_000) }]
      when "/file" then Rack::Files.new(File.dirname(path)).serving(Rack::Request.new(env), path)
      when "/some" then [200, {}, ["s" * 30_000]]
      else [200, {}, ["small"]]
      end
    end
  end
  let(:pump) { described_class::Pump.new }
  let!(:server) do
    Puma::Server.new(described_class.new(app, pump: pump), nil, min_threads: 2, max_threads: 2, log_writer: Puma::LogWriter.null)
                .tap { |each| @port = each.add_tcp_listener("127.0.0.1", 0).addr[1] }.tap(&:run)
  end

  after do
    @sockets&.each(&:close)
    server.stop(true)
    File.delete(file.path)
  end

  def get(path, **headers)
    Timeout.timeout(20) { Net::HTTP.start("127.0.0.1", @port) { |http| http.get(path, headers.transform_keys(&:to_s)) } }
  end

  # Connections that ask and never read.
  def deaf(path, count, times: 1)
    @sockets = Array.new(count) do
      socket = Socket.new(:INET, :STREAM)
      socket.setsockopt(:SOCKET, :RCVBUF, 2048)
      socket.connect(Addrinfo.tcp("127.0.0.1", @port))
      times.times { socket.write("GET #{path} HTTP/1.1\r\nHost: marsh\r\n\r\n") }
      socket
    end
  end

  it "hands out all of it, from memory, as it is made, from a file or a part of one" do
    replies = %w[/large /made /file].map { |path| get(path) }
    expect(replies.map { |reply| [reply.body == large, reply["content-length"]] }.uniq).to eq([[true, "3000000"]])
    part = get("/file", range: "bytes=1000000-1999999")
    expect([part.code, part.body == large.byteslice(1_000_000, 1_000_000)]).to eq(["206", true])
    expect(get("/file", range: "bytes=0-9,20-29").body == large).to be(true)
    expect([get("/").body, get("/some").body.length]).to eq(["small", 30_000])
    Net::HTTP.start("127.0.0.1", @port) do |http|
      expect([http.head("/file")["content-length"], http.get("/").body]).to eq(%w[3000000 small])
    end
  end

  it "goes on for others while forty that ask for much never read", :aggregate_failures do
    %w[/large /file].each do |path|
      deaf(path, 40)
      expect(get("/").body).to eq("small")
      expect(get("/large").body == large).to be(true)
    end
    expect(pump.length).to be >= 40
  end

  it "hangs up on who asks for more without having read what came before" do
    ask = -> { deaf("/some", 1, times: 500).first.tap { |socket| sleep 0.1 while socket.write("GET / HTTP/1.1\r\n\r\n") } }
    expect { Timeout.timeout(20) { ask.call } }.to raise_error(SystemCallError) # it has been hung up on
    expect(get("/").body).to eq("small")
  end

  it "lets go of who takes nothing any more, and first of the address that has most", :aggregate_failures do
    stub_const("#{described_class}::Pump::MOST", 3)
    now = 0.0
    pump = described_class::Pump.new(clock: -> { now })
    ours = Array.new(4) do |number|
      UNIXSocket.pair.tap do |_, theirs|
        now = number.to_f
        pump.pour(theirs, described_class::Held.new([large]), address: number < 3 ? "many" : "one")
        sleep 0.01 until pump.length == [number + 1, 3].min
      end.first
    end
    read_all = ->(socket) { Timeout.timeout(20) { socket.read.bytesize } }
    expect(read_all.call(ours[0])).to be < large.bytesize
    expect(read_all.call(ours[3])).to eq(large.bytesize)
    now += described_class::Pump::IDLE + 1
    sleep 0.05 until pump.none?
    expect(ours[1..2].map { |socket| read_all.call(socket) }).to all(be < large.bytesize)
  end
end
