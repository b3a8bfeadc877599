# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # How often each thing was given. Built on the count before, so that only answers that
      # are new or have changed are looked at: one more among many costs little.
      #
      #     Count.new(values) { |value| value["order"] }.of("a")
      class Count
        # How many gave anything.
        # @return [Integer]
        attr_reader :answered

        # @param values [Hash{Integer=>Hash}] seat id to value; an answer that hasn't changed is
        #   the same object as before
        # @param before [Count, nil] of the same things
        # @yieldparam value [Hash]
        # @yieldreturn [Array] the things in it, each once or more; none in a blank one
        def initialize(values, before: nil, &things)
          @values = values
          @counts = before ? before.counts.dup : Hash.new(0)
          @answered = before ? before.answered : 0
          turn_to(before ? before.values : {}, things)
          freeze
        end

        def of(thing) = counts[thing]

        # @return [Hash{Object=>Integer}] everything that was given, with how often
        def to_h = counts

        def ==(other) = other.is_a?(Count) && other.counts == counts && other.answered == answered

        protected

        attr_reader :values, :counts

        private

        def turn_to(old, things)
          values.each do |seat_id, value|
            was = old[seat_id]
            next if was.equal?(value)

            add(things.call(was), -1) if was
            add(things.call(value), 1)
          end
          old.each { |seat_id, was| add(things.call(was), -1) unless values.key?(seat_id) }
        end

        def add(given, sign)
          @answered += sign if given.any?
          given.each { |thing| counts.delete(thing) if (counts[thing] += sign).zero? }
        end
      end
    end
  end
end
