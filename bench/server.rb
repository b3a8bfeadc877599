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
    # @return [Setup::Supervisor::Program] that has been started
    def self.worker(env) = program_of("ruby", "-Ilib", "bin/work", environment: env).tap(&:start)

    def self.program_of(*command, **about)
      Roost::Setup::Supervisor::Program.new("bundle", "exec", *command, folder: Roost::Settings::ROOT, **about)
    end

    # @param rackup [String] file of the baseline
    def self.bare(rackup, workers:, &block)
      new({ "BENCH_DATABASE" => Roost.settings.database_url }, "-w", workers.to_s, "-t", "1:5", rackup, bind: true).run(&block)
    end

    # @return [Integer] a port that nobody has
    def self.free_port
      socket = TCPServer.new(HOST, 0)
      socket.addr[1]
    ensure
      socket.close
    end

    def initialize(env, *arguments, bind: false)
      @port = Server.free_port
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
      back = puma("-C", "config/lookback.rb", **Roost::Setup::Supervisor::Program::ROOMY) if whole
      @programs = [puma(*@arguments, **(whole ? { "ROOST_LOOKBACK" => "1" } : {})), back].compact
      @programs.each(&:start)
      200.times { break if answering? || sleep(0.1).nil? }
      self
    end

    # Each is ended that does not end when asked to.
    def stop = @programs.each(&:stop)

    def address = "http://#{HOST}:#{port}"

    # @return [Array<Integer>] process ids
    def workers = `pgrep -P #{@programs.first.pid}`.split.map(&:to_i)

    # @return [Array<Integer>] ids of all its processes
    def processes = @programs.map(&:pid) + workers

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
      pids = [@programs.first.pid, *workers]
      (pids.sum { |pid| File.read("/proc/#{pid}/smaps_rollup")[/^Pss:\s+(\d+)/, 1].to_i } / 1000.0).round
    end

    private

    def puma(*arguments, **more)
      Server.program_of("puma", "-q", *arguments, environment: @env.merge(more), output: { out: File::NULL })
    end

    def cookie(reply) = reply.get_fields("set-cookie").find { |each| each.start_with?("roost=") }.split(";").first

    def answering?
      TCPSocket.new(HOST, port).close || true
    rescue SystemCallError
      false
    end
  end
end
