# frozen_string_literal: true

module Roost
  module Core
    # Reads a number as people type it: decimal comma or point, minus, digits in groups, a
    # fraction, also after a whole number (3 1/2), powers of ten; and the unit after it, when one is
    # asked for. Exact: Rational.
    # Groups of three after a comma or a space are thousands: 1,200 is twelve hundred, 1,20 is 1.2
    # (rules.md, marks of numbers).
    module NumberText
      LIMIT = 60
      MOST_EXPONENT = 30
      DIGITS = /\d+(?:[.,]\d+)*/
      POWER = /(?:e|·10\^?|x10\^?)(?<exponent>[-+]?\d{1,3})/
      SHAPE = %r{\A(?<sign>[-+]?)(?<digits>#{DIGITS})(?:#{POWER})?(?:/(?<divisor>#{DIGITS}))?\z}i
      # A number as typed, with room between its signs, and what comes after it.
      SPACED_POWER = /\s*(?:[x·]\s*10\s*\^?\s*|e)[-+]?\d{1,3}/
      SPACED = %r{\A(?<number>[-+]?\s*[\d.,]+(?:#{SPACED_POWER})?(?:\s*/\s*[\d.,]+)?)\s*(?<unit>.*)\z}i
      UNREADABLE = "That is not a number we can read. Type it like 3.5, 3,5, -2 or 3/4."
      # A whole number and a proper fraction.
      FRACTION = %r{(?<above>\d{1,3})\s*/\s*(?<below>\d{1,3})(?!\d)}
      MIXED = /\A(?<sign>[-+]?)\s*(?<whole>\d{1,15})[ \u00A0\u202F]+#{FRACTION}\s*(?<unit>.*)\z/
      ALONE = "Type the number alone, without “%s”."
      WRONG_UNIT = "The unit should be %s. Type the number with it, or without a unit."

      # @param raw anything
      # @param unit [String] asked for; "" when none is
      # @return [Reading] of a Rational, or of nil when nothing was typed
      def self.read(raw, unit: "")
        Text.read(raw, limit: LIMIT, what: "That number", lines: false).and_then do |text|
          next Reading.ok(nil) if text.empty?

          plain, typed = mixed(text) || apart(text)
          next Reading.refused(UNREADABLE) unless plain
          next wrong_unit(typed, unit) unless typed.empty? || same_unit?(typed, unit)

          plain.is_a?(Rational) ? Reading.ok(plain) : parse(plain)
        end
      end

      def self.wrong_unit(typed, unit)
        return Reading.refused(UNREADABLE) if unit.empty? && typed.match?(/\d/)

        Reading.refused(unit.empty? ? format(ALONE, typed) : format(WRONG_UNIT, unit))
      end

      # @return [Array(Rational, String), nil] nil of what is no whole number with a fraction
      def self.mixed(text)
        found = text.tr("−–", "--").match(MIXED)
        return nil unless found && found[:above].to_i < found[:below].to_i

        number = found[:whole].to_i + Rational(found[:above].to_i, found[:below].to_i)
        [found[:sign] == "-" ? -number : number, found[:unit].strip]
      end

      # A number for reading: at most six decimals, without zeros at their end.
      # @param number [Rational]
      # @return [String]
      def self.show(number)
        return number.to_i.to_s if number.denominator == 1 && number.abs < 10**15
        return format("%.4g", number.to_f) if number.abs >= 10**15 || number.abs < 1r / (10**5)

        format("%.6f", number.to_f).sub(/0+\z/, "").sub(/\.\z/, "")
      end

      # @return [Array(String, String), nil] the number's signs closed up, and the unit
      def self.apart(text)
        text = text.tr("−–", "--").gsub("×", "x").gsub(/(?<=\d)[ \u00A0\u202F'](?=\d{3}(?!\d))/, "")
        found = text.match(SPACED)
        found && [found[:number].gsub(/\s/, ""), found[:unit].strip]
      end

      def self.same_unit?(typed, unit)
        return false if unit.empty?

        one, other = [typed, unit].map { |each| each.unicode_normalize(:nfkc).gsub(/\s/, "") }
        one == other || (one.length > 1 && one.casecmp?(other))
      end

      def self.parse(text)
        found = text.match(SHAPE)
        return Reading.refused(UNREADABLE) unless found

        exponent = found[:exponent].to_i
        return Reading.refused("That number is too large or too small.") if exponent.abs > MOST_EXPONENT

        above, below = [found[:digits], found[:divisor] || "1"].map { |digits| decimal(digits) }
        return Reading.refused(UNREADABLE) unless above && below
        return Reading.refused("A number can't be divided by zero.") if below.zero?

        number = above * (10r**exponent) / below
        Reading.ok(found[:sign] == "-" ? -number : number)
      end

      # Digits in groups of three, by one sign throughout, and what may come after the last of them.
      GROUPED = /\A[1-9]\d{0,2}(?:(?<sign>[.,])\d{3})(?:\k<sign>\d{3})*(?:(?!\k<sign>)[.,]\d+)?\z/
      ONE_POINT = /\A\d+\.\d+\z/
      PLAIN = /\A\d+(?:[.,]\d+)?\z/

      # @return [Rational, nil] nil where the signs between the digits make no sense
      def self.decimal(digits)
        groups = digits.match(GROUPED) unless digits.match?(ONE_POINT)
        return Rational(digits.delete(groups[:sign]).tr(",", ".")) if groups

        Rational(digits.tr(",", ".")) if digits.match?(PLAIN)
      end
      private_class_method :wrong_unit, :mixed, :apart, :same_unit?, :parse, :decimal
    end
  end
end
