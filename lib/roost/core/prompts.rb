# frozen_string_literal: true

module Roost
  module Core
    # The kinds of prompt there are: one file each in core/prompts/.
    module Prompts
      FILES = Dir[File.join(__dir__, "prompts", "*.rb")].map { |path| File.basename(path, ".rb") }.sort.freeze

      # Every kind, as classes, in the order a teacher is offered them.
      def self.kinds = FILES.map { |name| const_get(name.capitalize) }.sort_by(&:place)

      # @return [Class, nil] the kind of that name
      def self.kind(name) = FILES.include?(name) ? const_get(name.capitalize) : nil

      # What can be asked without having been prepared.
      # @return [Hash{String=>Array(Class, Hash)}] words of the button to kind and settings
      def self.on_the_spot
        kinds.each_with_object({}) do |kind, all|
          kind.on_the_spot.each { |words, settings| all[words] = [kind, settings] }
        end
      end

      # @return [Prompt, nil]
      def self.from_document(document)
        return nil unless document

        kind(document.fetch("kind")).new(id: document.fetch("id"), settings: document.except("id", "kind"))
      end
    end
  end
end
