# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What was typed and can't be read as an answer, kept as it is (rules.md, drafts that cannot be
      # read): the texts of each field of a form.
      module Typed
        MOST_BYTES = 10_000
        MOST_FIELDS = 40
        MOST_TEXTS = 10
        NAME = /\A\w{1,40}\z/

        # @param fields anything that was sent as the form of an answer
        # @return [Hash{String=>Array<String>}, nil] nil where there is nothing, or too much, to keep
        def self.read(fields)
          return nil unless fields.is_a?(Hash) && fields.length <= MOST_FIELDS && fields.keys.all?(NAME)

          texts = fields.transform_values { |values| Array(values).first(MOST_TEXTS) }
          return nil unless bounded?(texts.values.flatten(1))

          kept = texts.transform_values { |values| values.map { |text| cleaned(text) } }
          kept unless kept.values.flatten.all?(&:empty?)
        end

        def self.bounded?(texts) = texts.all?(String) && texts.sum(&:bytesize) <= MOST_BYTES

        def self.cleaned(text) = Text.read(text, limit: MOST_BYTES, what: "It").value.to_s
        private_class_method :bounded?, :cleaned
      end
    end
  end
end
