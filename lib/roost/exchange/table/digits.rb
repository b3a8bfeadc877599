# frozen_string_literal: true

require "bigdecimal"

module Roost
  module Exchange
    class Table
      # A number as a section of a number format has it: places, thousands, per cent, powers, fractions, and what stands in
      # between. Loads nothing else of the program.
      class Digits
        MOST_BELOW = 999 # of a fraction

        # @param section [Array<NumberFormat::Token>]
        def initialize(section)
          @section = section.reject { |token| token.kind == :condition }
          @point = place(:point) || @section.length
        end

        # @param value [Numeric] not negative
        # @return [String]
        def show(value)
          value = BigDecimal(value.to_s) * (100**many(@section, :percent))
          return fraction(value, place(:slash)) if place(:slash)
          return power(value, place(:exponent)) if place(:exponent)

          laid(value / (1000**left_out))
        end

        private

        def place(kind) = @section.index { |token| token.kind == kind }

        def many(tokens, kind) = tokens.count { |token| token.kind == kind }

        # Where the digits before the point end.
        def whole_end = @section.first(@point).rindex { |token| token.kind == :digit } || -1

        # Commas after them, or after the last of all: thousands that are left out.
        def left_out
          last = @section.rindex { |token| token.kind == :digit } || -1
          [whole_end, last].uniq.sum { |place| @section.drop(place + 1).take_while { |token| token.kind == :comma }.length }
        end

        def grouped? = many(@section.first(whole_end + 1), :comma).positive?

        def laid(value)
          places = many(@section.drop(@point), :digit)
          whole, decimals = value.round(places, half: :up).to_s("F").split(".")
          (before(whole == "0" ? [] : whole.chars) + after(decimals.to_s.ljust(places, "0").chars)).join.strip
        end

        # From the right: a digit to each place, and all that are left to the first.
        def before(digits)
          count = 0
          tokens = @section.first(@point)
          first = tokens.index { |token| token.kind == :digit }
          tokens.each_with_index.reverse_each.map do |token, at|
            next other(token) unless token.kind == :digit

            taken = at == first ? digits.slice!(0..).reverse : [digits.pop].compact
            taken = [{ "0" => "0", "?" => " " }[token.text]].compact if taken.empty?
            taken.map { |digit| separated(digit, count += 1) }.reverse.join
          end.reverse
        end

        def separated(digit, count) = grouped? && count > 1 && (count % 3) == 1 && digit != " " ? "#{digit}," : digit

        # To the last that is not nought, and as many as there are noughts in the format.
        def after(digits)
          tokens = @section.drop(@point)
          wanted = tokens.select { |token| token.kind == :digit }.map(&:text)
          needed = [(digits.rindex { |digit| digit != "0" } || -1) + 1, (wanted.rindex("0") || -1) + 1].max
          tokens.map do |token|
            next other(token) unless token.kind == :digit

            digit = digits.shift
            (needed -= 1) >= 0 ? digit : { "?" => " " }.fetch(token.text, "")
          end
        end

        def other(token) = { comma: "", space: " " }.fetch(token.kind, token.text)

        # Of as many digits before the point as the format has, the power is a multiple.
        def power(value, at)
          wide = [many(@section.first([@point, at].min), :digit), 1].max
          exponent = value.zero? ? 0 : value.exponent - 1
          exponent -= exponent % wide
          sign = exponent.negative? ? "-" : @section[at].text.delete("E-")
          shown = exponent.abs.to_s.rjust(many(@section.drop(at), :digit), "0")
          "#{Digits.new(@section.first(at)).show(value / (BigDecimal(10)**exponent))}E#{sign}#{shown}"
        end

        def fraction(value, slash)
          numerator = @section.first(slash).rindex { |token| token.kind != :digit } || 0
          mixed = many(@section.first(numerator), :digit).positive?
          whole = mixed ? value.floor : 0
          above, below = ratio(value - whole, @section.drop(slash + 1))
          return (whole + (above / below)).to_s if mixed && (above % below).zero?

          "#{"#{whole} " if whole.positive?}#{above}/#{below}"
        end

        # The nearest fraction with as many digits below as the format has places, or with what it names there.
        # @return [Array(Integer, Integer)]
        def ratio(value, below)
          named = below.map(&:text).join[/[1-9]\d*/].to_i
          return [(value * named).round, named] if named.positive?

          most = [(10**many(below, :digit)) - 1, MOST_BELOW].min
          nearest = (1..most).min_by { |each| ((value * each).round - (value * each)).abs / each }
          [(value * nearest).round, nearest]
        end
      end
    end
  end
end
