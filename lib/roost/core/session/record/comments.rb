# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What a teacher wrote to a student about their answer to one question: a text an attempt.
      class Comments
        # @return [Hash{Integer=>String}] number of the attempt to text, the latest first
        attr_reader :texts

        # @param texts [Hash{Integer=>String}] likewise
        def initialize(texts)
          @texts = texts
          freeze
        end

        NONE = new({})

        # @return [String] "" where nothing was written about that attempt
        def of(attempt) = texts.fetch(attempt, "")

        # @param attempt [Integer] that is looked at
        # @return [Hash{Integer=>String}] what was written about the others, in order
        def of_others(attempt) = texts.except(attempt).sort.to_h

        # All that was written, for whoever reads one text: what is about the attempt first, the others by their number.
        # @return [String]
        def in_words(attempt)
          others = of_others(attempt).map { |number, text| "On attempt #{number}: #{text}" }
          [of(attempt), *others].reject(&:empty?).join("\n")
        end
      end
    end
  end
end
