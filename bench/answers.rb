# frozen_string_literal: true

module Bench
  # Answers acknowledged a second, so many at a time, against bare Sinatra and a Sequel insert. The program and the
  # baseline take turns: the machine is shared, and what it gives changes within a minute. Both have run before, as a
  # server has that a lesson begins on; the seats are new to it.
  class Answers
    SEATS = 500
    AT_A_TIME = [50, 200].freeze
    TURNS = 4
    SECONDS = 3 # of each
    GOALS = { answers_ratio: "at least 2", answers_200_ratio: "at least 2", answer_cpu_us: "none set" }.freeze

    # @param server [Server]
    # @yieldparam seats [Integer]
    # @yieldreturn [Array<String>] tokens of that many seats in a session whose poll is open
    def initialize(server, &begun)
      @server = server
      @meter = Cpu::Meter.new(server)
      @begun = begun
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      Server.bare("bench/bare_answers.ru", workers: 2) do |bare|
        turns(AT_A_TIME.first, bare, 1)
        ratios = AT_A_TIME.map { |many| compared(many, bare) }.reduce(:merge)
        { **ratios, answer_cpu_us: cpu.round }
      end
    end

    # What a device sends.
    def self.body(save_no)
      JSON.generate({ slide: "s1", fields: { options: ["o#{(save_no % 4) + 1}"] }, final: true, save_no: save_no,
                      save_id: SecureRandom.uuid })
    end

    private

    # @return [Array<Array(Float, Float)>] acknowledged a second by the program and by the baseline
    def turns(many, bare, times)
      tokens = @begun.call(SEATS)
      sent = -1
      Array.new(times) do
        ours = rate(@server, many) { ["/answers/#{tokens[(sent += 1) % SEATS]}", Answers.body((sent / SEATS) + 1)] }
        [ours, rate(bare, many) { |number| ["/", Answers.body(number + 1)] }]
      end
    end

    def compared(many, bare)
      ours, theirs = turns(many, bare, TURNS).transpose.map { |rates| rates.sum / TURNS }
      { (many == 50 ? :answers_ratio : :"answers_#{many}_ratio") => (ours / theirs).round(2),
        "answers_#{many}_per_second": ours.round, "bare_answers_#{many}_per_second": theirs.round }
    end

    # @return [Float] microseconds of CPU that the program takes for one, so many at a time as in a class
    def cpu
      tokens = @begun.call(SEATS)
      sent = 0
      took = @meter.program do
        rate(@server, AT_A_TIME.first) do |number|
          ["/answers/#{tokens[number % SEATS]}", Answers.body(((sent = number) / SEATS) + 1)]
        end
      end
      took * 1_000_000 / (sent + 1)
    end

    def rate(server, many, &make) = Posts.new(Server::HOST, server.port, many, &make).run(SECONDS)
  end
end
