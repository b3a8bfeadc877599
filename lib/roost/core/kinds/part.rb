# frozen_string_literal: true

require "forwardable"
require "json"

module Roost
  module Core
    module Kinds
      # What a kind of prompt does for one purpose. Made of one prompt, and used through it
      # (Core::Prompt); asks it for its settings and for what other parts know.
      class Part
        extend Forwardable

        # Names what it asks the prompt for.
        def self.of_prompt(*names) = def_delegators(:prompt, *names)

        # @param prompt [Core::Prompt]
        def initialize(prompt)
          @prompt = prompt
        end

        private

        attr_reader :prompt

        # @return [Object, nil] what a text says as JSON, [] for an empty one; nil when it says
        #   nothing, or is longer than so many bytes
        def parsed(text, most:, nesting: 4)
          return nil unless text.bytesize <= most && text.valid_encoding?

          text.strip.empty? ? [] : JSON.parse(text, max_nesting: nesting)
        rescue JSON::ParserError, EncodingError
          nil
        end
      end
    end
  end
end
