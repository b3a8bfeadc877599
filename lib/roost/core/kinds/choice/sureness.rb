# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # How sure students say they are of what they chose, crossed with whether it is right.
        #
        # count:: how many were so sure; right:: how many of them were right, nil without a key
        Sureness = Struct.new(:words, :count, :right, keyword_init: true) do
          self::LEVELS = ["A guess", "Fairly sure", "Certain"].freeze

          # @param raw as a device sends it
          # @return [Integer, nil] a place in LEVELS; what is none counts as not said
          def self.read(raw)
            place = Integer(raw.to_s, 10, exception: false)
            place if place && self::LEVELS.each_index.include?(place)
          end

          # @param values [Array<Hash>] with "sure"
          # @param marks [Array<Rational>, nil] of the values, nil without a key
          # @return [Array<Sureness>] one each of LEVELS
          def self.of(values, marks)
            self::LEVELS.each_with_index.map do |words, level|
              places = values.each_index.select { |place| values[place]["sure"] == level }
              new(words: words, count: places.length, right: marks && places.count { |place| marks[place] == 1 }).freeze
            end
          end

          # @param knows [Boolean] those who know are surer
          def self.simulate(knows, random) = [random.rand(2) + (knows ? 1 : 0), self::LEVELS.length - 1].min
        end
      end
    end
  end
end
