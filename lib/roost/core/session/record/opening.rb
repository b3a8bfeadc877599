# frozen_string_literal: true

module Roost
  module Core
    module Session
      # That a question was open to everybody in the room: of one slide, once for each attempt at it.
      # Times are seconds since the epoch by the database clock.
      #
      # clock_at::  when the present clock began to run; nil as long as there is none
      # deadline::  of everybody who has no extra time
      # most_at::   since when it is closed for all but those with extra time; nil while it is open for all, or for none
      # play::      number of the time that its round is played; nil outside of rounds
      # told_at::   when the right answer, or who was right, was first shown to the room; key_at:: when the right answer was
      Opening = Struct.new(:attempt, :opened_at, :clock_at, :deadline, :most_at, :closed_at, :told_at, :key_at,
                           :play, keyword_init: true) do
        # Answers on their way when answering ends still count for this long (slow Wi-Fi).
        self::GRACE = 1.0
        self::LEAST = 5 # seconds

        # @param fields [Array] its members
        def self.of(fields) = new(**members.zip(fields).to_h).freeze

        def self.begin(now, time_limit, attempt: 1, play: nil)
          new(attempt: attempt, opened_at: now, clock_at: time_limit && now, deadline: time_limit && (now + time_limit),
              play: play).freeze
        end

        def open? = closed_at.nil?

        # Whether a seat with that much time may still answer.
        # @param factor [Numeric] of its time, 1 for most
        def open_for?(factor) = open? && (most_at.nil? || factor > 1)

        # When the time of a seat is over; nil without a clock.
        # @param factor [Numeric] of its time: reading and thinking take so many times as long
        # @return [Float, nil]
        def deadline_for(factor)
          return deadline unless deadline && factor > 1

          began = clock_at || opened_at
          began + ((deadline - began) * factor.to_f)
        end

        # When answering ends for a seat, or has ended; nil while nobody knows.
        # @return [Float, nil]
        def ends_at(factor = 1) = [closed_at, deadline_for(factor)].compact.min

        # When somebody who came in then could first read the question on the wall.
        # @param came_at [Float, nil] nil of who was there before
        # @return [Float, nil] nil when it was over by then
        def seen_on_wall_at(came_at)
          came = came_at || opened_at
          [came, opened_at].max if ends_at.nil? || came <= ends_at
        end

        # Whether an answer that comes at that time counts (rules.md, when an answer counts).
        # @param grace [Numeric] seconds
        # @param factor [Numeric] of the seat's time
        def cover?(time, grace: self.class::GRACE, factor: 1)
          ends = ends_at(factor)
          opened_at <= time && (ends.nil? || time <= ends + grace) && !told?(time)
        end

        # Whether the room had been told by then how it went: that settles every answer.
        def told?(time) = !told_at.nil? && told_at <= time

        # Whether it was over before anybody could have answered: then the slide was only leafed
        # through (rules.md, passed over).
        # @param words [Integer] to be read on the slide
        def passed?(words) = !open? && closed_at - opened_at < [self.class::LEAST, 2 + (words / 3.0)].max

        # True once the grace after the deadline is over and nobody has closed it yet.
        # @param factor [Numeric] the largest of those who are waited for
        def expired?(now, factor: 1)
          ends = deadline_for(factor)
          open? && !ends.nil? && now > ends + self.class::GRACE
        end

        # Whether the grace after answering is over, so that the room may be told.
        def tellable?(now) = !open? && now >= closed_at + self.class::GRACE

        # @param late [Boolean] whether some had longer than the deadline
        def closed(now, late: false) = with(closed_at: deadline && !late ? [deadline, now].min : now)

        # Closed for all but those with extra time.
        def closed_for_most = with(most_at: deadline)

        # @param key [Boolean] whether the right answer was shown
        def told(now, key:) = with(told_at: told_at || now, key_at: key_at || (now if key))

        def reopened(now, time_limit)
          with(closed_at: nil, most_at: nil, clock_at: time_limit && now, deadline: time_limit && (now + time_limit))
        end

        # A timer can be lengthened, or given to a question that has none.
        def extended(now, seconds)
          with(clock_at: clock_at || now, deadline: [deadline || now, now].max + seconds, most_at: nil)
        end

        private

        def with(**changes) = self.class.new(**to_h, **changes).freeze
      end
    end
  end
end
