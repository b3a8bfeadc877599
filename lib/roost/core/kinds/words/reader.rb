# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # Reads an answer to it.
        class Reader < Kinds::Reader
          BETWEEN = /[,;\n]/
          LIST_BYTES = 1_000

          of_prompt :most

          # @param raw [Hash] "words", several, or with commas between; the same word twice counts once
          def read(raw, _names = nil)
            given = given(raw)
            return too_many unless given

            readings = given.map { |word| Text.read(word, limit: Prompt::WORD_LIMIT, what: "A word", lines: false) }
            refused = readings.find { |reading| !reading.ok? }
            return refused if refused

            words = readings.map(&:value).reject { |word| Prompt.same(word).empty? }.uniq { |word| Prompt.same(word) }
            Reading.ok({ "words" => words.first(most) })
          end

          def blank_answer?(value) = value["words"].empty?

          def projected(value) = value["words"].to_h { |word| [Prompt.same(word), word] }

          def missing = "Write a word first."

          private

          def too_many = Reading.refused("#{most} #{most == 1 ? "word" : "words"} is the most here. Remove some.")

          # What was given, word by word; nil where a list is too long: it is not cut, the student says which.
          def given(raw)
            fields = raw.is_a?(Hash) ? Array(raw["words"]) : []
            return nil if fields.length > Prompt::MOST.max

            words = fields.flat_map { |text| apart(text) }
            words if words.count { |text| text != "" } <= [fields.length, most].max
          end

          # What was written into one field with commas between.
          def apart(text)
            return [text] unless text.is_a?(String) && text.bytesize <= LIST_BYTES && text.valid_encoding? && text.match?(BETWEEN)

            text.split(BETWEEN).map(&:strip).reject(&:empty?).first(Prompt::MOST.max + 1)
          end
        end
      end
    end
  end
end
