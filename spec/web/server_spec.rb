# frozen_string_literal: true

require "socket"

# The program as it is started, with a request no program would send.
RSpec.describe "The running server" do
  # @return [String] what it wrote while the block ran
  def log_of
    port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
    out, said = IO.pipe
    settings = { "ROOST_ENV" => "test", "ROOST_PORT" => port.to_s, "ROOST_WORKERS" => "0" }
    program = Roost::Setup::Supervisor::Program.new("bundle", "exec", "puma", "-q", "-C", "config/puma.rb", environment: settings,
                                                    folder: Roost::Settings::ROOT, output: { %i[out err] => said })
    program.start
    said.close
    100.times { break if answers?(port) || sleep(0.1).nil? }
    yield port
    program.stop
    out.read
  end

  def answers?(port)
    TCPSocket.new("127.0.0.1", port).close || true
  rescue SystemCallError
    false
  end

  def say(port, bytes)
    TCPSocket.open("127.0.0.1", port) do |socket|
      socket.write(bytes)
      socket.wait_readable(3) ? socket.read : ""
    rescue Errno::ECONNRESET, Errno::EPIPE
      "HTTP/1.1 4 cut off"
    end
  end

  it "gives each thread a buffer of its own for its answers, whoever handed the connection on" do
    require "puma"
    require "puma/server"
    client = Puma::Client.allocate.tap { |each| each.singleton_class.prepend(Roost::Web::OwnBuffers) }
    client.io_buffer.write("HTTP/1.1 200 OK")
    Thread.new { client.io_buffer.reset }.join
    expect(client.io_buffer.read_and_reset).to eq("HTTP/1.1 200 OK")
    expect(File.read(File.join(Roost::Settings::ROOT, "config/puma.rb"))).to include("Puma::Client.prepend(Roost::Web::OwnBuffers)")
  end

  it "answers what can't be read with headers, and writes no address into its log" do
    answers = []
    log = log_of do |port|
      answers << say(port, "GET /seat/SECRETTOKEN\x01 HTTP/1.1\r\nHost: x\r\n\r\n")
      answers << say(port, "POST /answers/SECRETTOKEN HTTP/1.1\r\nHost: x\r\nContent-Length: nonsense\r\n\r\n")
      answers << say(port, "GET /seat/SECRETTOKEN HTTP/1.1\r\nHost: x\r\nX: #{"y" * 200_000}\r\n\r\n")
      answers << say(port, "GET /seat/SECRETTOKEN?%FF HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n")
    end
    expect(log).not_to include("SECRETTOKEN")
    expect(answers.last).to start_with("HTTP/1.1 400").and include("content-security-policy")
    expect(answers).to all(match(%r{\AHTTP/1\.[01] 4}))
  end
end
