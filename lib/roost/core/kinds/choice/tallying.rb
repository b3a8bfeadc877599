# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          Row = Struct.new(:option, :count, :share, keyword_init: true)
          # sure:: [Sureness] one each of Sureness::LEVELS, nil where it was not asked
          Tally = Struct.new(:rows, :answered, :right, :sure, keyword_init: true)

          of_prompt :blank_answer?, :keyed?, :mark, :options, :sure?

          # rules.md, tallies: count and share of those who answered.
          def tally(values)
            answered = values.reject { |value| blank_answer?(value) }
            counts = answered.flat_map { |value| value["options"] }.tally
            marks = answered.map { |value| mark(value) } if keyed?
            rows = options.map { |option| row(option, counts.fetch(option.id, 0), answered.length) }
            Tally.new(answered: answered.length, right: marks&.count(1), rows: rows,
                      sure: (Sureness.of(answered, marks) if sure?)).freeze
          end

          private

          def row(option, count, answered)
            Row.new(option: option, count: count, share: answered.zero? ? 0r : Rational(count, answered)).freeze
          end
        end
      end
    end
  end
end
