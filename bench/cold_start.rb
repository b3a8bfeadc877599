# frozen_string_literal: true

module Bench
  # A program that has just begun, with six processes, when a class is there already: answers acknowledged in its first five
  # seconds, against those that it acknowledges in as many a moment later.
  class ColdStart
    WORKERS = 6
    SECONDS = 5
    AT_A_TIME = 30
    GOALS = { cold_start_ratio: "at least 0.7" }.freeze

    # @yieldparam seats [Integer]
    # @yieldreturn [Array<String>] tokens of that many seats in a session whose poll is open
    def initialize(&begun)
      @tokens = begun.call(Answers::SEATS)
      @sent = -1
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      Server.program(Server::SETTINGS.merge("ROOST_WORKERS" => WORKERS.to_s)) do |server|
        cold = rate(server)
        warm = rate(server)
        { cold_start_ratio: (cold / warm).round(2), cold_start_per_second: cold.round }
      end
    end

    private

    def rate(server)
      posts = Posts.new(Server::HOST, server.port, AT_A_TIME) do
        ["/answers/#{@tokens[(@sent += 1) % @tokens.length]}", Answers.body((@sent / @tokens.length) + 1)]
      end
      posts.run(SECONDS)
    end
  end
end
