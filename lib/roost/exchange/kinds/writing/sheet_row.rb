# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Writing
        # Sentences as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "an answer that a practice class may give",
                        "rules" => "one line, equation, at most 12 words, boxes \"I saw\" / \"I think\"" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            limit = rules.filter_map { |rule| rule[/\Aat most (\d+) words?\z/, 1] }.first
            samples = options.reject(&:empty?).map { |text| text[0, 500] }
            size = { "one line" => "line", "equation" => "equation" }.find { |rule, _| rules.include?(rule) }&.last || "paragraph"
            labels = rules.texts("boxes").map { |label| label.tr(",", " ") }
            kind.new(id: id, settings: { "samples" => samples })
                .edited(common.merge("size" => size, "word_limit" => limit, "boxes" => labels.join(",")))
          end

          of_prompt :boxes

          def options = prompt.settings["samples"]

          def rules
            true_of("one line" => prompt.line?, "equation" => prompt.equation?,
                    "at most #{prompt.word_limit} words" => !prompt.word_limit.nil?,
                    "boxes #{boxes.map { |label| RowRules.quote(label) }.join(" / ")}" => boxes.any?)
          end
        end
      end
    end
  end
end
