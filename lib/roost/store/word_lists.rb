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

      @lock = Mutex.new

      # @return [Core::RudeNames] one a process
      def self.rude_names
        @lock.synchronize do
          @rude_names ||= Core::RudeNames.new(words, names: names, looks: Unicode::Confusable.method(:skeleton))
        end
      end

      def self.words = Dir[FILES].flat_map { |file| JSON.parse(File.read(file)) }

      # @return [Core::RudeNames::Names] as the parts of the file say
      def self.names
        honest, beside, others = File.read(NAMES).split(/^\[.*\]$/).drop(1).map { |part| part.split.to_set }
        Core::RudeNames::Names.new(honest: honest, beside: beside, others: others)
      end
      private_class_method :words, :names
    end
  end
end
