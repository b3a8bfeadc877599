# frozen_string_literal: true

module Roost
  module Core
    module Room
      # What has happened to the prompt of one slide in a session: when answering
      # opened, when it closed, and the deadline if it is timed. Times are seconds
      # since the epoch by the database clock.
      Run = Struct.new(:opened_at, :deadline, :closed_at, keyword_init: true) do
        # Answers on their way when answering ends still count for this long (slow Wi-Fi).
        self::GRACE = 1.0
        self::LEAST = 5 # seconds

        def self.from_document(document)
          new(opened_at: document["opened_at"], deadline: document["deadline"], closed_at: document["closed_at"]).freeze
        end

        def self.open(now, time_limit) = new(opened_at: now, deadline: time_limit && (now + time_limit)).freeze

        def open? = closed_at.nil?

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

        def to_document = to_h.transform_keys(&:to_s)

        private

        def with(**changes) = self.class.new(**to_h, **changes).freeze
      end
    end
  end
end
