# frozen_string_literal: true

module Roost
  module Core
    module Practice
      # What a simulated student will do with one prompt: a function of the session's
      # seed, the student and the prompt, so that any process can carry it out, twice if
      # need be, with the same result.
      Plan = Struct.new(:seconds, :value, :skips, keyword_init: true) do
        self::UNTIMED = 12.0

        # @param place [Integer] which student of the class
        # @return [Plan] seconds after the prompt opened, and the answer; `skips` when
        #   this student leaves this prompt alone
        def self.of(student, place, prompt, seed:)
          random = Random.new((seed * 1_000_003) + (place * 7919) + (prompt.id.sum * 104_729))
          median = prompt.time_limit ? prompt.time_limit * 0.45 : self::UNTIMED
          seconds = student.seconds(median, random)
          new(skips: student.absent?(random), value: prompt.simulate(student, random), seconds: seconds).freeze
        end
      end
    end
  end
end
