# frozen_string_literal: true

module Roost
  module Core
    module Session
      # That a question was open to everybody in the room: of one slide, once for each attempt at it.
      # Times are seconds since the epoch by the database clock.
      Opening = Struct.new(:attempt, :opened_at, :deadline, :closed_at, keyword_init: true) do
        # Answers on their way when answering ends still count for this long (slow Wi-Fi).
        self::GRACE = 1.0
        self::LEAST = 5 # seconds

        def self.begin(now, time_limit, attempt: 1)
          new(attempt: attempt, opened_at: now, deadline: time_limit && (now + time_limit)).freeze
        end

        def open? = closed_at.nil?

        # When answering ends, or has ended; nil while nobody knows.
        # @return [Float, nil]
        def ends_at = closed_at || deadline

        # Whether an answer that comes at that time counts (rules.md, when an answer counts).
        # @param grace [Numeric] seconds
        def cover?(time, grace: self.class::GRACE) = opened_at <= time && (ends_at.nil? || time <= ends_at + grace)

        # Whether it was over before anybody could have answered: then the slide was only leafed
        # through (rules.md, passed over).
        # @param words [Integer] to be read on the slide
        def passed?(words) = !open? && closed_at - opened_at < [self.class::LEAST, 2 + (words / 3.0)].max

        # True once the grace after the deadline is over and nobody has closed it yet.
        def expired?(now) = open? && !deadline.nil? && now > deadline + self.class::GRACE

        def closed(now) = with(closed_at: deadline ? [deadline, now].min : now)

        def reopened(now, time_limit) = with(closed_at: nil, deadline: time_limit && (now + time_limit))

        # A timer can be lengthened, or given to a question that has none.
        def extended(now, seconds) = with(deadline: [deadline || now, now].max + seconds)

        private

        def with(**changes) = self.class.new(**to_h, **changes).freeze
      end
    end
  end
end
