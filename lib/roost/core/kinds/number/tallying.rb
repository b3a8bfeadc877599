# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          # band:: [low, high] of the key, nil without one; spread:: Tallies::Spread, nil of no answers
          Tally = Struct.new(:spread, :answered, :right, :band, keyword_init: true)

          of_prompt :keyed?, :band

          def tally(values)
            counts = values.filter_map { |value| value["number"] }.tally.transform_keys { |text| Rational(text) }
            right = counts.sum { |number, count| number.between?(*band) ? count : 0 } if keyed?
            Tally.new(spread: Tallies::Spread.of_counts(counts), answered: counts.values.sum, right: right, band: band).freeze
          end

          def remark(value, tally) = tally.spread&.outliers&.include?(Rational(value["number"])) ? "far off" : nil
        end
      end
    end
  end
end
