# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          of_prompt :options

          def answered(value)
            picked = options.select { |option| value["options"].include?(option.id) }
            picked.map { |option| "#{option.letter} #{option.name}".strip }.join("; ")
          end

          def plain(value)
            words = answered(value)
            value["sure"] ? "#{words} (#{Sureness::LEVELS[value["sure"]].downcase})" : words
          end

          def right_in_words
            right = options.select(&:key)
            right.map(&:name).join("; ") if right.any?
          end

          def short(value) = options.select { |option| value["options"].include?(option.id) }.map(&:letter).join

          def short_in_words? = false

          def tally_parts(value, _tally) = value["options"]
        end
      end
    end
  end
end
