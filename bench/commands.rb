# frozen_string_literal: true

module Bench
  # What one command costs by the length of the lesson: it has to read no more than what it changes.
  class Commands
    SLIDES = [30, 300].freeze
    TURNS = 25
    GOALS = { command_300_ms: "none set", command_cpu_ms: "none set", command_growth: "at most 1.3" }.freeze

    # @param account [Integer]
    # @param server [Server]
    def initialize(account, server)
      @account = account
      @meter = Cpu::Meter.new(server)
      @http, @headers = server.teacher
    end

    # @return [Hash{Symbol=>Numeric}] milliseconds from the press to the reply (medians, sizes in turns); CPU time of one
    #   command, PostgreSQL's with it
    def call
      sessions = SLIDES.map { |count| session(count) }
      turns = nil
      cpu = @meter.whole { turns = Array.new(TURNS) { |turn| sessions.map { |session| press(session, turn) } } }
      short, long = turns.drop(3).transpose.map { |times| Bench.median(times) }
      { command_30_ms: short.round(1), command_300_ms: long.round(1), command_growth: (long / short).round(2),
        command_cpu_ms: (cpu * 1000 / turns.flatten.length).round(1) }
    end

    private

    def session(count)
      kind = Roost::Core::Kinds.all.first
      slides = Array.new(count) do |number|
        prompt = kind.new(id: "p#{number}", settings: {}) if number.odd?
        Roost::Core::Slide.new(id: "s#{number}", heading: "Birds of the marsh", text: "Dusk " * 80, prompt: prompt)
      end
      lesson = Roost::Store::Lessons.new.create(@account, Roost::Core::Lesson.new(title: "Bench", slides: slides))
      form = { "opens_itself" => "1", "may_change" => "1" }
      session = Roost::Operations::StartSession.new.call(@account, lesson, form).value
      session.tap { Roost::Operations::CommandSession.new.call(@account, session.id, "begin") }
    end

    def press(session, turn)
      began = Bench.clock
      reply = @http.post("/desk/#{session.id}/commands", "command=next&from=s#{turn}", @headers.merge("hx-request" => "true"))
      raise "refused: #{reply.code}" unless reply.code == "204"

      (Bench.clock - began) * 1000
    end
  end
end
