# frozen_string_literal: true

require "json"

module Roost
  module Store
    # Lists of words that don't belong on a class screen: naughty-words, kept by its authors on npm
    # (CC BY 4.0).
    module WordLists
      FOLDER = File.join(Settings::ROOT, "node_modules/naughty-words")
      LANGUAGES = %w[en].freeze

      # @return [Core::CleanName] one a process
      def self.clean_name
        @clean_name ||= begin
          lists = LANGUAGES.map { |language| JSON.parse(File.read(File.join(FOLDER, "#{language}.json"))) }
          Core::CleanName.new(lists.flatten)
        end
      end
    end
  end
end
