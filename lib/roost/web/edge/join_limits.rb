# frozen_string_literal: true

require "rack/attack"

module Roost
  module Web
    # How often joining may be tried from one address, counted by Rack::Attack for all processes together. A school is one
    # address: what fails is counted, and only what fails is turned away, so that nobody waits for a neighbour who tries
    # everything. Those who come in are counted by session.
    module JoinLimits
      WRONG_CODES = 20
      # Names, numbers or picks that were refused.
      WRONG_NAMES = 120
      PERIOD = 60 # seconds

      class << self
        # Whether too many have come into a session from there within a minute for another to come now.
        def crowd?(address, session_id)
          cache.read("#{Time.now.to_i / PERIOD}:came:#{address}:#{session_id}").to_i >= Roost.settings.joins_a_minute
        end

        # Counts one who came in.
        def came_in(address, session_id)
          cache.count("came:#{address}:#{session_id}", PERIOD)
        end

        # Counts a wrong code.
        # @return [Boolean] whether that were too many within a minute
        def wrong?(address) = cache.count("codes:#{address}", PERIOD) > WRONG_CODES

        # Counts a pass or the code of a class that nobody has.
        # @return [Array<Integer>] the status of the answer
        def unknown(request)
          many = cache.count("unknown:#{Address.of(request)}", PERIOD) > WRONG_CODES
          [many ? 429 : 404]
        end

        # Counts what was refused to somebody who wanted to come in.
        # @return [Boolean] whether that were too many for a session within a minute
        def refused?(address, session_id) = cache.count("refused:#{address}:#{session_id}", PERIOD) > WRONG_NAMES

        private

        def cache = Rack::Attack.cache.tap { |cache| cache.store ||= Store::Counters.new }
      end
    end
  end
end
