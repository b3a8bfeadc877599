# frozen_string_literal: true

require "roost"
require "argon2"
require "net/http"
require "securerandom"
require "zlib"
require_relative "hostile"
require_relative "kinds"
require_relative "load"
require_relative "preparing"
require_relative "server"

module Bench
  # The whole measurement: starts the program and the baselines on free loopback ports,
  # one after the other, and compares.
  class Run
    STREAMS = 1000
    TURNS = 9
    SEATS = 500
    SPREAD = 10.0
    AT_A_TIME = 50
    SECONDS = 8
    GOALS = { fanout_ratio: "at most 3", answers_ratio: "at least 0.5", tally_ms_p95: "at most 600", rss_mb: "at most 300",
              seat_first_load_kb: "at most 100" }.merge(Preparing::GOALS, Kinds::GOALS, Hostile::GOALS).freeze

    def call
      Roost::Store::Database.migrate
      prepare
      results = {}
      Server.program({ "ROOST_ENV" => "bench" }) do |server|
        @server = server
        results.merge!(seat_first_load_kb: first_load)
        results.merge!(fan_out)
        results.merge!(tally)
        results[:answers_per_second] = answers.round
        results.merge!(Preparing.new(@account, server).call)
        results.merge!(Kinds.new(@account, server).call)
        results.merge!(Hostile.new(@account, server).call)
      end
      results.merge!(bare_fan_out(results.delete(:event_bytes)))
      results[:bare_answers_per_second] = bare_answers.round
      results[:fanout_ratio] = (results[:fanout_ms] / results[:bare_fanout_ms]).round(2)
      results[:answers_ratio] = (results[:answers_per_second].to_f / results[:bare_answers_per_second]).round(2)
      results
    end

    private

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
      slides = Array.new(TURNS + 3) do |number|
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

    def command(session, name) = Roost::Operations::CommandSession.new.call(session.account_id, session.id, name)

    # Teacher presses next over HTTP; the last of the streams has the new slide.
    def fan_out
      session, tokens = new_session(STREAMS)
      streams = Streams.new(Server::HOST, port, tokens.map { |token| "/stream/seat/#{token}" })
      streams.wait_until { |text| text.include?("\n\n") }
      http, headers = @server.teacher
      event = nil
      times = Array.new(TURNS) do |turn|
        sleep 0.5
        began = Bench.clock
        presser = Thread.new { http.post("/desk/#{session.id}/commands", "command=next&from=s#{turn}", headers) }
        last = streams.wait_until { |text| text.include?("slide-s#{turn + 1}") && text.end_with?("\n\n") && (event = text) }
        presser.join
        (last - began) * 1000
      end
      { fanout_ms: Bench.median(times).round(1), event_bytes: event.dup, rss_mb: @server.memory }.tap { streams.close }
    end

    def bare_fan_out(event)
      Server.bare("bench/bare_streams.ru", workers: 0) do |server|
        @server = server
        streams = Streams.new(Server::HOST, port, ["/"] * STREAMS)
        sleep 1
        http = Net::HTTP.new(Server::HOST, port)
        times = Array.new(TURNS) do |turn|
          sleep 0.5
          began = Bench.clock
          presser = Thread.new { http.post("/", "#{event.chomp}\n: #{turn}\n\n") }
          last = streams.wait_until { |text| text.end_with?(": #{turn}\n\n") }
          presser.join
          (last - began) * 1000
        end
        streams.close
        { bare_fanout_ms: Bench.median(times).round(1) }
      end
    end

    # SEATS seats answer within SPREAD seconds; for each, until its count is at the Desk.
    def tally
      session, tokens = new_session(SEATS)
      command(session, "next")
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
          http.post("/answers/#{token}", body(1), { "content-type" => "application/json" })
        end
      end
    rescue ThreadError
      nil
    end

    def body(save_no)
      JSON.generate({ slide: "s1", fields: { options: ["o#{(save_no % 4) + 1}"] }, final: true, save_no: save_no,
                      save_id: SecureRandom.uuid })
    end

    def answers
      session, tokens = new_session(SEATS)
      command(session, "next")
      Posts.new(Server::HOST, port, AT_A_TIME) { |number| ["/answers/#{tokens[number % SEATS]}", body((number / SEATS) + 1)] }
           .run(SECONDS)
    end

    def bare_answers
      Server.bare("bench/bare_answers.ru", workers: 2) do |server|
        @server = server
        Posts.new(Server::HOST, port, AT_A_TIME) { |number| ["/", body(number + 1)] }.run(SECONDS)
      end
    end

    # What a phone loads on its first visit to a seat, compressed as it asks for it.
    def first_load
      session, tokens = new_session(1)
      command(session, "next")
      http = Net::HTTP.new(Server::HOST, port)
      get = ->(path) { http.get(path, { "accept-encoding" => "gzip" }) }
      page = get.call("/seat/#{tokens.first}")
      html = page["content-encoding"] == "gzip" ? Zlib.gunzip(page.body) : page.body
      assets = html.scan(%r{(?:href|src)="(/assets/[^"]+)"}).flatten
      styles = assets.grep(/\.css/).map { |path| http.get(path, { "accept-encoding" => "identity" }).body }
      # A font for some characters only is fetched where one of them is to be seen.
      faces = styles.flat_map { |style| style.scan(/@font-face\s*\{[^}]*\}/) }.reject { |face| face.include?("unicode-range") }
      fonts = faces.flat_map { |face| face.scan(/[\w-]+\.woff2/) }.map { |file| "/assets/#{file}" }
      ((page.body.bytesize + (assets | fonts).sum { |path| get.call(path).body.bytesize }) / 1000.0).round(1)
    end

    def port = @server.port
  end
end

results = Roost::Setup::Cluster.new(Roost.settings).use { Bench::Run.new.call }
if ARGV.include?("--json")
  puts JSON.generate(results)
else
  Bench::Run::GOALS.each { |name, goal| puts format("%-20s %10s   %s", name, results[name], goal) }
  results.except(*Bench::Run::GOALS.keys).each { |name, figure| puts format("%-24s %10s", name, figure) }
end
