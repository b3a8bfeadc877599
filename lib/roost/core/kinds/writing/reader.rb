# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Writing
        # Reads an answer to it.
        class Reader < Kinds::Reader
          ANSWER_LIMIT = 8_000

          of_prompt :boxes, :equation?, :settings, :word_limit, :all_in_one

          def read(raw, _names = nil)
            return read_boxes(raw) if boxes.any?

            read_text(field(raw, "text"), "That").and_then { |text| settable(text) }
          end

          def blank_answer?(value) = value["text"].empty?

          def missing = "Write something first."

          private

          # What can't be set is kept as it was typed.
          def settable(text)
            return Reading.ok({ "text" => text }) unless equation? && !Formula.settable?(text)

            Reading.refused("That equation is too large to be shown. Make it simpler, then hand it in.")
          end

          def read_text(raw, what)
            Text.read(raw, limit: ANSWER_LIMIT, what: "#{what} answer", lines: settings["size"] == "paragraph").and_then do |text|
              words = text.split.length
              next Reading.ok(text) unless word_limit && words > word_limit

              Reading.refused("#{what} is #{words} words; #{word_limit} is the most. Shorten it, then hand it in.")
            end
          end

          def read_boxes(raw)
            readings = boxes.each_with_index.map { |label, place| read_text(field(raw, "box#{place}"), "“#{label}”") }
            refused = readings.find { |reading| !reading.ok? }
            return refused if refused

            texts = readings.map(&:value)
            Reading.ok({ "text" => all_in_one(texts), "boxes" => texts })
          end
        end
      end
    end
  end
end
