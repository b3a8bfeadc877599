# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # Reads an answer to it.
        class Reader < Kinds::Reader
          of_prompt :unit

          # @param raw [Hash] "number" as typed
          def read(raw, _names = nil)
            text = Text.read(field(raw, "number"), limit: NumberText::LIMIT, what: "That number", lines: false)
            text.and_then { |typed| NumberText.read(typed, unit: unit) }.map do |number|
              number ? { "text" => text.value, "number" => number.to_s } : { "text" => "", "number" => nil }
            end
          end

          def keypad_takes = :digits

          def keypad(keys) = keys.match?(/\A-?\d+(?:\.\d+)?\z/) ? { "number" => [keys] } : nil

          def missing = "Type a number first."

          def understood(value) = value["number"] && "Read as #{grouped(Rational(value["number"]))} #{unit}".strip

          def blank_answer?(value) = value["number"].nil?

          private

          # With a thin space between thousands, so that 1,200 is seen to be more than one.
          def grouped(number)
            whole, part = NumberText.show(number).split(".")
            [whole.gsub(/(?<=\d)(?=(?:\d{3})+\z)/, "\u202F"), part].compact.join(".")
          end
        end
      end
    end
  end
end
