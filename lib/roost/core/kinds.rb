# frozen_string_literal: true

module Roost
  module Core
    # The kinds of prompt there are: one folder each in core/kinds/. The folder being there makes the
    # kind exist. What it may hold, and what is used where it doesn't, are the classes beside the
    # folders: Part and those after it.
    module Kinds
      FOLDER = File.join(__dir__, "kinds")
      NAMES = Dir.children(FOLDER).select { |name| File.directory?(File.join(FOLDER, name)) }.sort.freeze

      class << self
        # @return [Array<Class>] of prompts, in the order a teacher is offered them
        def all = NAMES.map { |name| named(name) }.sort_by(&:place)

        # @return [Class, nil] of prompts of that kind
        def named(name) = NAMES.include?(name) ? folder(name).const_get(:Prompt, false) : nil

        # What a kind brings along for one purpose.
        # @param name [Symbol] of a class beside the folders: one of Prompt::PARTS
        # @return [Class]
        def part(kind, name)
          folder(kind).const_defined?(name, false) ? folder(kind).const_get(name, false) : const_get(name, false)
        end

        # What can be asked without having been prepared.
        # @return [Hash{String=>Array(Class, Hash)}] words of the button to kind and settings
        def on_the_spot
          all.each_with_object({}) { |kind, found| kind.on_the_spot.each { |words, settings| found[words] = [kind, settings] } }
        end

        # @return [Prompt, nil]
        def from_document(document)
          return nil unless document

          named(document.fetch("kind")).new(id: document.fetch("id"), settings: document.except("id", "kind"))
        end

        # What a kind's folder is called as a constant: "fill_in" is FillIn.
        # @return [Symbol]
        def constant(name) = name.split("_").map(&:capitalize).join.to_sym

        private

        def folder(name) = const_get(constant(name), false)
      end
    end
  end
end
