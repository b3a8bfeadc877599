# frozen_string_literal: true

require "rack/attack"

module Roost
  module Web
    # How often codes may be tried from one address, counted by Rack::Attack for all processes
    # together. A class behind one address is never held up by wrong ones, since a session that
    # somebody there has joined (or started) stays open to that address.
    module JoinLimits
      WRONG_CODES = 20
      PERIOD = 60 # seconds
      KNOWN_FOR = 4 * 3600

      class << self
        # Counts a try to join.
        # @return [Boolean] whether that were too many within a minute, right ones included
        def crowd?(address) = cache.count("joins:#{address}", PERIOD) > Roost.settings.joins_a_minute

        # @param code [String, nil] as read
        def shut_out?(address, code) = bans.banned?(address) && cache.read(known(address, code)).nil?

        # Counts a wrong code.
        def wrong(address)
          bans.filter(address, maxretry: WRONG_CODES, findtime: PERIOD, bantime: PERIOD) { true }
        end

        # The session's code is good from this address, however many wrong ones it sends.
        def trust(address, code) = cache.write(known(address, code), 1, KNOWN_FOR)

        private

        def known(address, code) = "known:#{address}:#{code}"

        def bans
          cache # it counts there
          Rack::Attack::Fail2Ban
        end

        def cache = Rack::Attack.cache.tap { |cache| cache.store ||= Store::Counters.new }
      end
    end
  end
end
