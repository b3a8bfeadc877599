# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Writing
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          of_prompt :boxes, :blank_answer?

          def gathered(values, before: nil, **)
            parts = [nil, *boxes].last([boxes.length, 1].max).each_with_index.map do |label, place|
              texts = values.each_value.map { |value| label ? value["boxes"][place] : value["text"] }.reject(&:empty?)
              part(label, texts, before&.parts&.at(place))
            end
            Prompt::Tally.new(answered: values.each_value.count { |value| !blank_answer?(value) }, parts: parts).freeze
          end

          private

          def part(label, texts, before)
            grouping = Tallies::Grouping.new(texts, before: before&.grouping)
            Prompt::Part.new(label: label, grouping: grouping, groups: grouping.groups,
                             key_terms: Tallies::KeyTerms.new(texts, before: before&.key_terms)).freeze
          end
        end
      end
    end
  end
end
