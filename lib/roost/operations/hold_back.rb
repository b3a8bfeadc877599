# frozen_string_literal: true

require "set"

module Roost
  module Operations
    # Marks what others would get to see and does not belong on a wall: it waits for the teacher (rules.md, Names). Words that
    # the lesson itself has are fine.
    class HoldBack
      # @param rude [#call] whether a text had better wait
      def initialize(rude: Store::WordLists.method(:rude?))
        @rude = rude
      end

      # @param value [Hash] as the prompt's kind read it
      # @return [Hash] the value, with what waits as "held" where anything does
      def call(prompt, lesson, value)
        doubtful = prompt.projected(value).select { |_, text| @rude.call(text) }
        return value if doubtful.empty?

        own = lesson.slides.flat_map { |slide| words(slide.searchable) }.to_set
        held = doubtful.select { |_, text| @rude.call(words(text).reject { |word| own.include?(word) }.join(" ")) }.keys
        held.empty? ? value : { **value, "held" => held }
      end

      private

      def words(text) = text.downcase.split(/[^\p{L}\p{M}\p{N}'*]+/)
    end
  end
end
