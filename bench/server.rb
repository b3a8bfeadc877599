# frozen_string_literal: true

require "net/http"
require "socket"

module Bench
  # A Puma of its own on a free loopback port: the program, or a bare baseline. Serves the
  # bench, the specs of faults and the pictures.
  class Server
    HOST = "127.0.0.1"
    # Of the program that is measured: one address may join often, and streams may come from many.
    SETTINGS = { "ROOST_ENV" => "bench", "ROOST_JOINS_A_MINUTE" => "100000", "ROOST_PROXIES" => "1" }.freeze

    attr_reader :port

    # @param env [Hash] settings besides the port
    def self.program(env, &block) = new(env, "-C", "config/puma.rb").run(&block)

    # Something that does the work in the background.
    # @return [Integer] its process id
    def self.worker(env) = spawn(env, "bundle", "exec", "ruby", "-Ilib", "bin/work", chdir: Roost::Settings::ROOT)

    # @param rackup [String] file of the baseline
    def self.bare(rackup, workers:, &block)
      new({ "BENCH_DATABASE" => Roost.settings.database_url }, "-w", workers.to_s, "-t", "1:5", rackup, bind: true).run(&block)
    end

    def initialize(env, *arguments, bind: false)
      socket = TCPServer.new(HOST, 0)
      @port = socket.addr[1]
      socket.close
      @env = env.merge("ROOST_PORT" => port.to_s)
      @arguments = bind ? ["-b", "tcp://#{HOST}:#{port}", *arguments] : arguments
    end

    # Starts it, yields itself, stops it.
    # @return what the block gives
    def run
      start
      yield self
    ensure
      stop
    end

    def start
      whole = @arguments.include?("config/puma.rb") && @env["ROOST_LOOKBACK"] != "0"
      @back = puma("-C", "config/lookback.rb", **Roost::Setup::Supervisor::Program::ROOMY) if whole
      @puma = puma(*@arguments, **(whole ? { "ROOST_LOOKBACK" => "1" } : {}))
      200.times { break if answering? || sleep(0.1).nil? }
      self
    end

    def stop
      [@puma, @back].compact.each { |pid| Process.kill(:TERM, pid) }.each { |pid| Process.wait(pid) }
    end

    def address = "http://#{HOST}:#{port}"

    # @return [Array<Integer>] process ids
    def workers = `pgrep -P #{@puma}`.split.map(&:to_i)

    # Signs in as the teacher does.
    # @return [Array(Net::HTTP, Hash)] a connection and the headers with which to press buttons
    def teacher
      http = Net::HTTP.new(HOST, port)
      page = http.get("/sign-in")
      form = { authenticity_token: page.body[/name="authenticity_token" value="([^"]+)"/, 1],
               email: "bench@heronsgate.example", password: "bench bench bench" }
      cookie = http.post("/sign-in", URI.encode_www_form(form), { "cookie" => cookie(page) }).then { |reply| cookie(reply) }
      page = http.get("/lessons", { "cookie" => cookie })
      [http, { "cookie" => cookie(page), "x-csrf-token" => page.body[/X-CSRF-Token":"([^"]+)"/, 1] }]
    end

    # Proportional share of memory of all its processes, in MB.
    def memory
      pids = [@puma, *workers]
      (pids.sum { |pid| File.read("/proc/#{pid}/smaps_rollup")[/^Pss:\s+(\d+)/, 1].to_i } / 1000.0).round
    end

    private

    def puma(*arguments, **more)
      env = Roost::Setup::Supervisor::Program::ENVIRONMENT.merge(@env).merge(more)
      spawn(env, "bundle", "exec", "puma", "-q", *arguments, chdir: Roost::Settings::ROOT, out: File::NULL)
    end

    def cookie(reply) = reply.get_fields("set-cookie").find { |each| each.start_with?("roost=") }.split(";").first

    def answering?
      TCPSocket.new(HOST, port).close || true
    rescue SystemCallError
      false
    end
  end
end
