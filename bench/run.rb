# frozen_string_literal: true

require "roost"
require "argon2"
require "json"
require "net/http"
require "securerandom"
require "zlib"
require_relative "answers"
require_relative "asking"
require_relative "classes"
require_relative "cold_start"
require_relative "commands"
require_relative "cpu"
require_relative "desk"
require_relative "crowd"
require_relative "fan_out"
require_relative "first_load"
require_relative "hostile"
require_relative "ink"
require_relative "joining"
require_relative "kinds"
require_relative "load"
require_relative "looking_back"
require_relative "native"
require_relative "preparing"
require_relative "rounds"
require_relative "server"
require_relative "sittings"

module Bench
  # The whole measurement: starts the program and the baselines on free loopback ports, and compares.
  class Run
    SEATS = 500
    SPREAD = 10.0
    SLIDES = 12
    PARTS_OF_THEIR_OWN = [FanOut, Answers, ColdStart, Desk, Classes, Commands, Ink, Joining, Crowd, Sittings, Preparing, Kinds,
                          LookingBack, Hostile, Rounds].freeze
    GOALS = { tally_ms_p95: "at most 300", seat_first_load_kb: "at most 100" }
            .merge(*PARTS_OF_THEIR_OWN.map { |part| part::GOALS }).freeze
    PARTS = %w[seat fan_out answers cold_start desk commands classes ink joining
               crowd sittings preparing kinds looking_back hostile rounds].freeze
    # @param parts [Array<String>] of PARTS
    def initialize(parts)
      @parts = parts
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      Roost::Store::Database.migrate
      prepare
      Server.program(Server::SETTINGS) do |server|
        @server = server
        @parts.map { |part| send(part) }.reduce(:merge)
      end
    end

    private

    def seat
      _, tokens = asked(1)
      { seat_first_load_kb: FirstLoad.of(@server, "/seat/#{tokens.first}"), **tally }
    end

    def fan_out = FanOut.new(@server) { |seats| new_session(seats) }.call

    def answers = Answers.new(@server) { |seats| asked(seats).last }.call
    def cold_start = ColdStart.new { |seats| asked(seats).last }.call
    def desk = Desk.new(@server) { |seats| asked(seats) }.call

    def commands = Commands.new(@account, @server).call
    def classes = Classes.new(@server) { |seats| new_session(seats) }.call

    def ink = Ink.new(@server) { |seats| new_session(seats) }.call

    def joining
      session, = new_session(0)
      Roost::Operations::CommandSession.new.call(@account, session.id, "make_room", { "seats" => Joining::DEVICES.to_s })
      Joining.new(@server, session).call
    end

    # Limits as in a school: a program of its own, in which nobody looks back.
    def crowd
      Server.program(Server::SETTINGS.except("ROOST_JOINS_A_MINUTE").merge("ROOST_LOOKBACK" => "0")) do |server|
        Crowd.new(server) { new_session(0).first.tap { |session| command(session, "next") } }.call
      end
    end

    def sittings = Sittings.new(@account, @server).call

    def preparing = Preparing.new(@account, @server).call
    def kinds = Kinds.new(@account, @server).call
    def looking_back = LookingBack.new(@account, @server) { new_session(LookingBack::CLASS) }.call
    def rounds = Rounds.new(@account, @server).call
    def hostile = Hostile.new(@account, @server).call

    def database = Roost::Store::Database.connection

    def prepare
      database.run("TRUNCATE accounts, sessions, lessons, counters CASCADE")
      database.create_table!(:bare_answers) do
        primary_key :id
        String :slide
        column :value, :jsonb
        TrueClass :final
      end
      @account = Roost::Store::Accounts.new.create(email: "bench@heronsgate.example", name: "Bench",
                                                   password_hash: Argon2::Password.new.create("bench bench bench"))
    end

    # A slide of the usual size, and a poll, over and over.
    def new_session(seats)
      slides = Array.new(SLIDES) do |number|
        prompt = Roost::Core::Kinds.all.first.new(id: "p#{number}", settings: {}) if number.odd?
        Roost::Core::Slide.new(id: "s#{number}", heading: "Why do swallows leave the marsh before the first frost?",
                               text: "Think of what a swallow eats. " * 20, prompt: prompt)
      end
      lesson = Roost::Store::Lessons.new.create(@account, Roost::Core::Lesson.new(title: "Bench", slides: slides))
      session = Roost::Operations::StartSession.new.call(@account, lesson, { "opens_itself" => "1", "may_change" => "1" }).value
      tokens = Array.new(seats) { |number| Roost::Store::Seats.new.create(session.id, "Student #{number}").last }
      command(session, "begin")
      [session, tokens]
    end

    # The same, with its first poll open.
    def asked(seats) = new_session(seats).tap { |session, _| command(session, "next") }

    def command(session, name) = Roost::Operations::CommandSession.new.call(session.account_id, session.id, name)

    # SEATS seats answer within SPREAD seconds; for each, until its count is at the Desk.
    def tally
      session, tokens = asked(SEATS)
      _http, headers = @server.teacher
      seats = Streams.new(Server::HOST, port, tokens.map { |token| "/stream/seat/#{token}" })
      seats.wait_until { |text| text.include?("\n\n") }
      seen = []
      desk = Thread.new { watch_desk(session, headers, seen) }
      sleep 1
      sent = send_answers(tokens)
      desk.join
      waits = sent.each_with_index.map { |time, place| seen.find { |count, _at| count > place }[1] - time }
      seats.close
      { tally_ms_p95: (waits.sort[(waits.length * 0.95).ceil - 1] * 1000).round,
        tally_ms_median: (Bench.median(waits) * 1000).round }
    end

    def watch_desk(session, headers, seen)
      stream = Streams.new(Server::HOST, port, ["/stream/desk/#{session.id}"]) { "Cookie: #{headers["cookie"]}\r\n" }
      stream.wait_until(seconds: 60) do |text|
        while (event = text.slice!(/\A.*?\n\n/m))
          count = event[%r{<strong>(\d+)</strong> answered}, 1].to_i
          seen << [count, Bench.clock]
          break true if count >= SEATS
        end
      end
      stream.close
    end

    def send_answers(tokens)
      waiting = Queue.new
      began = Bench.clock
      tokens.each_with_index { |token, place| waiting << [token, began + (place * SPREAD / SEATS)] }
      sent = Queue.new
      Array.new(8) { Thread.new { answer_some(waiting, sent) } }.each(&:join)
      Array.new(sent.length) { sent.pop }.sort
    end

    def answer_some(waiting, sent)
      Net::HTTP.start(Server::HOST, port) do |http|
        loop do
          token, due = waiting.pop(true)
          sleep([due - Bench.clock, 0].max)
          sent << Bench.clock
          http.post("/answers/#{token}", Answers.body(1), { "content-type" => "application/json" })
        end
      end
    rescue ThreadError
      nil
    end

    def port = @server.port
  end
end

parts = ARGV.grep_v(/\A--/)
parts = Bench::Run::PARTS if parts.empty?
results = Roost::Setup::Cluster.new(Roost.settings).use { Bench::Run.new(parts).call }
if ARGV.include?("--json")
  puts JSON.generate(results)
else
  Bench::Run::GOALS.slice(*results.keys).each { |name, goal| puts format("%-20s %10s   %s", name, results[name], goal) }
  results.except(*Bench::Run::GOALS.keys).each { |name, figure| puts format("%-24s %10s", name, figure) }
end
