# frozen_string_literal: true

require "yaml"

module Roost
  module Store
    # The drawings that ship with the program, to be found by words and put on slides.
    class PictureLibrary
      Drawing = Struct.new(:name, :title, :tags, keyword_init: true)

      FOLDER = File.join(Settings::ROOT, "library")

      # @return [Array<Drawing>]
      def self.all
        @all ||= YAML.safe_load_file(File.join(FOLDER, "index.yml")).map do |name, about|
          Drawing.new(name: name, title: about["title"], tags: about["tags"]).freeze
        end.freeze
      end

      # @param query [String] beginnings of words, all of which a drawing has in its title or tags
      # @return [Array<Drawing>]
      def self.find(query)
        terms = query.to_s.downcase.scan(/[[:alnum:]]+/)
        all.select do |drawing|
          words = "#{drawing.title} #{drawing.tags}".downcase.scan(/[[:alnum:]]+/)
          terms.all? { |term| words.any? { |word| word.start_with?(term) } }
        end
      end

      # @return [Drawing, nil]
      def self.drawing(name) = all.find { |drawing| drawing.name == name }

      # @return [String] where the file of a drawing is
      def self.path(drawing) = File.join(FOLDER, "#{drawing.name}.svg")
    end
  end
end
