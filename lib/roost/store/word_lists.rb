# frozen_string_literal: true

require "json"

module Roost
  module Store
    # Lists of words that don't belong on a class screen: naughty-words, kept by its authors on npm
    # (CC BY 4.0).
    module WordLists
      FOLDER = File.join(Settings::ROOT, "node_modules/naughty-words")

      @rude_namess = Core::LruCache.new(4)

      # @param languages [Array<String>] that the keeper has chosen (Core::SchoolSettings::LANGUAGES)
      # @return [Core::RudeNames] one a process and choice
      def self.rude_names(languages = School.new.settings.languages)
        @rude_namess.fetch(languages) do
          lists = languages.map { |language| JSON.parse(File.read(File.join(FOLDER, "#{language}.json"))) }
          Core::RudeNames.new(lists.flatten)
        end
      end
    end
  end
end
