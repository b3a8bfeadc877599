# frozen_string_literal: true

require "json"
require "unicode/confusable"

module Roost
  module Store
    # Words that don't belong on a class screen: naughty-words, kept by its authors on npm (CC BY 4.0), in all its languages,
    # since a class has children of many; names that pass although they look so; and what looks like what, as Unicode says.
    module WordLists
      FILES = File.join(Settings::ROOT, "node_modules/naughty-words/{??,???,fr-*}.json")
      NAMES = File.join(Settings::ROOT, "config/honest_names.txt")

      # Of a longer text so many characters at a time are looked at.
      PIECE = 100

      @lock = Mutex.new
      @known = Core::LruCache.new(5_000)

      # @return [Core::RudeNames] one a process
      def self.rude_names
        @lock.synchronize do
          @rude_names ||= Core::RudeNames.new(words, names: names, looks: Unicode::Confusable.method(:skeleton))
        end
      end

      # Whether a text doesn't belong on a wall; what is written letter by letter is asked of again and again.
      # @param text [String] of bounded length
      def self.rude?(text)
        @known.fetch(text) { pieces(text).any? { |piece| rude_names.include?(piece) } ? :rude : :fine } == :rude
      end

      # Words of it together, as many as are looked at in one go; the last of one stands in the next as well.
      def self.pieces(text)
        pieces = text.split.each_with_object([[]]) do |word, some|
          some << some.last.last(1) if some.last.sum(&:length) + word.length > PIECE
          some.last << word
        end
        pieces.map { |words| words.join(" ") }
      end

      def self.words = Dir[FILES].flat_map { |file| JSON.parse(File.read(file)) }

      # @return [Core::RudeNames::Names] as the parts of the file say
      def self.names
        honest, beside, others = File.read(NAMES).split(/^\[.*\]$/).drop(1).map { |part| part.split.to_set }
        Core::RudeNames::Names.new(honest: honest, beside: beside, others: others)
      end
      private_class_method :words, :names, :pieces
    end
  end
end
