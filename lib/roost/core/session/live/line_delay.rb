# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Whether an answer that came after answering had ended was given in time and held up by the
      # line. The device says how long the question had been there and how often it tried to send;
      # that alone proves nothing, since its clock may have been changed. So it is believed only where
      # the server's own heartbeats say that the line was bad: what a changed clock gains is the
      # last round trip at most.
      #
      #     LineDelay.excuses?(claim, sent_at: 100.0, ended: 120.0, now: 127.5, line: line)
      module LineDelay
        MOST = 10.0 # seconds after the end
        # As long a device waits for one try, and the longest pause before the next.
        TRY = 8.0
        PAUSE = 3.0
        LONGEST = 86_400_000 # milliseconds
        MOST_TRIES = 10_000
        # A heartbeat that is answered so fast, in seconds, says that the line is good.
        PROMPT = 1.0

        # elapsed:: seconds between the question being drawn and the press; tries:: how often it was sent
        Claim = Struct.new(:elapsed, :tries, keyword_init: true)

        # Times in epoch seconds by the server's clock, nil where nothing is known.
        #
        # heard_at::   when the device last answered a heartbeat
        # asked_at::   when the oldest heartbeat was sent that it has not answered yet
        # bad_from::, bad_until:: the last stretch that ended with an answer that was not prompt
        # round_trip:: seconds from the last heartbeat to its answer
        Line = Struct.new(:heard_at, :asked_at, :bad_from, :bad_until, :round_trip, keyword_init: true) do
          # Whether the device has been out of reach since a time, or was until just now.
          def bad_at?(time, now)
            return false unless heard_at

            slack = round_trip || 0
            silent = !asked_at.nil? && now - asked_at > PROMPT && time >= heard_at - slack
            silent || (!bad_from.nil? && time >= bad_from - slack && now <= bad_until + TRY + PAUSE)
          end
        end

        # @param message [Hash] of a device: "elapsed" in milliseconds, "tries"
        # @return [Claim, nil] nil where it claims nothing that can be read
        def self.claim(message)
          elapsed, tries = message.values_at("elapsed", "tries")
          return nil unless whole?(elapsed, 0..LONGEST) && whole?(tries, 1..MOST_TRIES)

          Claim.new(elapsed: elapsed / 1000.0, tries: tries).freeze
        end

        def self.whole?(number, range) = number.is_a?(Integer) && range.cover?(number)
        private_class_method :whole?

        # @param sent_at [Float, nil] when the seat's device was first sent the open question
        # @param ended [Float] when answering ended
        # @param now [Float] when the answer came
        # @param line [Line]
        def self.excuses?(claim, sent_at:, ended:, now:, line:)
          return false unless sent_at && claim.elapsed <= ended - sent_at

          behind = now - ended
          return false if behind > (claim.tries > 1 ? MOST : TRY + Opening::GRACE)

          behind <= (line.round_trip || 0) + Opening::GRACE || line.bad_at?(ended, now)
        end
      end
    end
  end
end
