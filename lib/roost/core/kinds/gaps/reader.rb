# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # Reads an answer to it.
        class Reader < Kinds::Reader
          ANSWER_LIMIT = 120

          of_prompt :gaps, :right?

          # @param raw [Hash] "gap0", "gap1", …
          def read(raw, _names = nil)
            readings = gaps.each_index.map do |number|
              Text.read(field(raw, "gap#{number}"), limit: ANSWER_LIMIT, what: "Gap #{number + 1}", lines: false)
            end
            readings.find { |reading| !reading.ok? } || Reading.ok({ "gaps" => readings.map(&:value) })
          end

          def blank_answer?(value) = value["gaps"].all?(&:empty?)

          # What is right may be any word.
          def projected(value)
            value["gaps"].each_with_index.reject { |filling, number| filling.empty? || right?(filling, gaps[number]) }
                         .to_h { |filling, number| [number.to_s, filling] }
          end

          def missing = "Fill a gap first."
        end
      end
    end
  end
end
