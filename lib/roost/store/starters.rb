# frozen_string_literal: true

require "yaml"

module Roost
  module Store
    # Ready slides that ship with the program.
    module Starters
      # drawing:: name of a drawing of the picture library, or nil
      # slide::   Core::Slide without its picture
      Starter = Struct.new(:id, :group, :title, :drawing, :slide, keyword_init: true)

      FILE = File.join(Settings::ROOT, "starters/starters.yml")

      # @return [Array<Starter>] in the order in which they are offered
      def self.all = @all ||= YAML.safe_load_file(FILE).map { |source| starter(source) }.freeze

      # @return [Starter, nil]
      def self.find(id) = all.find { |starter| starter.id == id }

      def self.starter(source)
        parts = source.slice("heading", "text", "arrangement").transform_keys(&:to_sym)
        slide = Core::Slide.new(id: source["id"], prompt: prompt(source["id"], source["prompt"]), **parts)
        Starter.new(id: source["id"], group: source["group"], title: source["title"], drawing: source["drawing"],
                    slide: slide).freeze
      end

      # Options stand in the file as texts, and keys as places from 1.
      def self.prompt(id, source)
        settings = source.except("kind")
        if settings["options"]
          options = settings["options"].each_with_index.map { |text, place| { "id" => "o#{place + 1}", "text" => text } }
          settings = settings.merge("options" => options, "made" => options.length,
                                    "keys" => settings.fetch("keys", []).map { |place| "o#{place}" })
        end
        Core::Kinds.named(source["kind"]).new(id: id, settings: settings)
      end
      private_class_method :starter, :prompt
    end
  end
end
