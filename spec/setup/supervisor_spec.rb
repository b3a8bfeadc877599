# frozen_string_literal: true

require "net/http"
require "open3"
require "socket"
require "tmpdir"

RSpec.describe Roost::Setup::Supervisor do
  it "has programs give memory out in two lots" do
    Dir.mktmpdir do |folder|
      program = described_class::Program.new("sh", "-c", "printf $MALLOC_ARENA_MAX > lots", folder: folder)
      program.start
      sleep 0.02 while program.running?
      expect(File.read(File.join(folder, "lots"))).to eq("2")
    end
  end

  it "asks a program again to end that lets the first time pass" do
    Dir.mktmpdir do |folder|
      once = "trap 'trap - TERM' TERM; : > on; while :; do sleep 0.1; done"
      deaf = described_class::Program.new("sh", "-c", once, folder: folder)
      deaf.start
      sleep 0.02 until File.exist?(File.join(folder, "on"))
      deaf.stop
      expect(deaf).not_to be_running
    end
  end

  describe "what it keeps up" do
    let(:said) { [] }
    let(:time) { [0.0] }

    # A part that runs for so many seconds each time it is started, or does not start at all.
    def part(*lives)
      times = time
      Class.new do
        define_method(:starts) { @starts ||= [] }
        define_method(:start) do
          starts << times[0].round
          life = lives[[starts.length, lives.length].min - 1]
          raise "no room" if life.nil?

          @until = times[0] + life
        end
        define_method(:running?) { !@until.nil? && times[0] < @until }
        define_method(:stop) { @until = nil }
      end.new
    end

    # After so many seconds it is asked to end.
    def kept(services, ending)
      supervisor = described_class.new(services, say: said.method(:<<), clock: -> { time[0] })
      allow(supervisor).to receive(:sleep) do
        time[0] += 0.25
        supervisor.stop if time[0] >= ending
      end
      supervisor.run
    end

    it "is started again after pauses that grow, and that begin anew once it has held for a minute" do
      web = part(10, 10, 10, 70, 10)
      steady = part(10_000)
      kept({ "The web server" => web, "The database" => steady }, 150)
      expect(web.starts).to eq([0, 11, 23, 37, 108, 120, 134])
      expect(steady.starts).to eq([0])
      expect(steady).not_to be_running
      expect(said.first).to eq("The web server has ended. It is started again in 1 s.")
    end

    it "is tried again every half minute for as long as it takes, while the others go on" do
      database = part(100, nil)
      web = part(10_000)
      kept({ "The database" => database, "The web server" => web }, 5000)
      expect(web.starts).to eq([0])
      expect(said).to include("The database does not start: no room")
      expect(database.starts.last).to be_within(31).of(5000)
      expect(database.starts.each_cons(2).map { |one, next_one| next_one - one }.last).to be_within(1).of(30)
    end
  end

  it "brings back what is killed, and leaves nothing behind when it is killed itself: the next start finds the port free" do
    Dir.mktmpdir("roost", "/tmp") do |var|
      File.chmod(0o755, var)
      port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }
      env = { "ROOST_VAR" => var, "ROOST_PORT" => port.to_s, "ROOST_WORKERS" => "0", "ROOST_ENV" => "production" }
      log = File.join(var, "log")
      serve = spawn(env, "bundle", "exec", "ruby", "-Ilib", "bin/serve", chdir: Roost::Settings::ROOT, %i[out err] => [log, "a"])
      await_joining(port, 60)
      kill(`pgrep -f "puma .*:#{port}"`)
      await_joining(port, 20)
      notes = Dir["#{var}/postgres/postmaster.pid", "/var/lib/amber-roost-*/postmaster.pid"]
      kill(File.read(notes.max_by { |file| File.mtime(file) }))
      expect(Net::HTTP.get_response(URI("http://127.0.0.1:#{port}/")).code).to eq("200") # needs no database
      within(10) { File.read(log).include?("The database has ended.") }
      await_joining(port, 30)
      expect(File.read(log)).to include("The web server has ended.")
      expect(File.read(log)).not_to match(/^\s+from /)
      kill(serve.to_s)
      Process.wait(serve)
      serve = spawn(env, "bundle", "exec", "ruby", "-Ilib", "-rsocket", "-e", <<~RUBY, chdir: Roost::Settings::ROOT)
        sleep 0.2 while begin; TCPSocket.new("127.0.0.1", #{port}).close || true; rescue SystemCallError; false; end
        load "bin/serve"
      RUBY
      within(60) { `pgrep -f "bin/work" --parent #{serve}`.lines.length == 1 }
      await_joining(port, 60)
      Process.kill(:TERM, serve)
      expect(Process.wait2(serve).last).to be_success
      serve = nil
    ensure
      serve && Process.kill(:TERM, serve) && Process.wait(serve)
    end
  end

  # Waits until a code is looked up and not found.
  def await_joining(port, seconds)
    within(seconds) do
      Net::HTTP.post_form(URI("http://127.0.0.1:#{port}/join"), "code" => "ABC 234", "name" => "Ada").code == "422"
    rescue SystemCallError, EOFError
      false
    end
  end

  def within(seconds)
    ending = Time.now + seconds
    until yield
      raise "not there after #{seconds} s" if Time.now > ending

      sleep 0.2
    end
  end

  def kill(pid) = Process.kill(:KILL, Integer(pid.lines.first))
end
