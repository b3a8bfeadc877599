# frozen_string_literal: true

require "set"

module Roost
  module Operations
    # Marks what others would get to see and does not belong on a wall: it waits for the teacher (rules.md, Names). Words that
    # the lesson itself has are fine.
    class HoldBack
      # Words of each lesson, worked out once.
      OWN = Core::LruCache.new(50)
      private_constant :OWN

      # @param rude [#call] whether a text had better wait
      def initialize(rude: Store::WordLists.method(:rude?))
        @rude = rude
      end

      # @param value [Hash] as the prompt's kind read it
      # @return [Hash] the value, with what waits as "held" where anything does
      def call(prompt, lesson, value)
        doubtful = prompt.projected(value).select { |_, text| @rude.call(text) }
        return value if doubtful.empty?

        held = doubtful.select { |_, text| @rude.call(without_own(text, lesson)) }.keys
        held.empty? ? value : { **value, "held" => held }
      end

      private

      # The rest as it was written: signs that stand for letters are what one looks for.
      def without_own(text, lesson)
        own = OWN.fetch(lesson) { lesson.slides.flat_map { |slide| slide.searchable.split.map { |word| plain(word) } }.to_set }
        text.split.reject { |word| own.include?(plain(word)) }.join(" ")
      end

      # Without what stands around it in a sentence.
      def plain(word) = word.downcase.gsub(/\A[^\p{L}\p{N}]+|[^\p{L}\p{N}]+\z/, "")
    end
  end
end
