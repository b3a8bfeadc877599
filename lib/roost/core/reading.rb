# frozen_string_literal: true

module Roost
  module Core
    # What came of reading something from outside: a value, or the reason it is
    # refused, in one sentence for a person. Nothing in the core raises on bad input.
    class Reading
      attr_reader :value, :reason

      def self.ok(value) = new(value, nil)

      def self.refused(reason) = new(nil, reason)

      def initialize(value, reason)
        @value = value
        @reason = reason
        freeze
      end

      def ok? = reason.nil?

      # Goes on with the value; a refusal passes through. The block returns a Reading.
      def and_then = ok? ? yield(value) : self

      # Goes on with the value; the block returns a bare value.
      def map = ok? ? Reading.ok(yield(value)) : self
    end
  end
end
