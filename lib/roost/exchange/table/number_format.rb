# frozen_string_literal: true

require "date"

module Roost
  module Exchange
    class Table
      # A number format of a workbook (ECMA-376 part 1, 18.8.31): how a number, a date or a time is shown by the program that
      # made it. Names of months and days are English. Loads nothing else of the program.
      class NumberFormat
        # One thing after another in a format: kind and text.
        TOKENS = {
          literal: /"([^"]*)"|\\(.)|\[\$([^\]-]*)[^\]]*\]/, space: /_./, fill: /\*./,
          elapsed: /\[(h+|m+|s+)\]/i, ignored: /\[(?:[A-Za-z]+\d*|DBNum\d)\]/,
          condition: /\[(<=|>=|<>|<|>|=)(-?\d+(?:\.\d+)?)\]/, half: %r{AM/PM|A/P}i,
          date: /y+|m+|d+|h+|s+|e+(?!\+|-)/i, general: /General/i, exponent: /E[+-]/, digit: /[0#?]/, point: /\./, comma: /,/,
          percent: /%/, text: /@/, slash: %r{/}, other: /./m
        }.freeze
        # kind:: of TOKENS; text:: as it is shown; parts:: what its pattern caught
        Token = Struct.new(:kind, :text, :parts, keyword_init: true)
        # What stands for itself in between.
        PLAIN = /\A[-+() :$£€¥&'^~{}<>=!1-9]\z/
        DATE_KINDS = %i[date elapsed half].freeze
        MONTHS = Date::MONTHNAMES
        DAYS = Date::DAYNAMES
        # The day that is 0; the one that never was, 29 Feb 1900, is 60.
        EPOCH = Date.new(1899, 12, 30)
        EPOCH_1904 = Date.new(1904, 1, 1)
        LAST = 2_958_465 # 31 Dec 9999
        LONGEST = 255

        # @param code [String] such as "0.00" or "d mmmm yyyy"
        # @param late_epoch [Boolean] whether the workbook counts its days from there
        def initialize(code, late_epoch: false)
          @late_epoch = late_epoch
          @sections = split(code.length > LONGEST ? "" : code).map { |section| tokens(section) }
        end

        # @param value [Numeric]
        # @return [String, nil] nil where the format, or the number in it, is not understood
        def show(value)
          section, signed = chosen(value)
          return nil if section.nil? || unknown?(section)
          return NumberFormat.plain(value) if section.empty? || kinds(section).intersect?(%i[general text])
          return moment(section, value) if kinds(section).intersect?(DATE_KINDS)

          "#{"-" if signed && value.negative?}#{Digits.new(section).show(value.abs)}"
        end

        # Without what a computer's way of keeping numbers adds (0.30000000000000004).
        def self.plain(value)
          value == value.round && value.abs < 10**15 ? value.round.to_s : Kernel.format("%.15g", value)
        end

        private

        def kinds(section) = section.map(&:kind)

        # At semicolons that are neither quoted nor escaped.
        def split(code)
          code.scan(/(?:"[^"]*"|\\.|\[[^\]]*\]|[^;])*;?/m).reject(&:empty?).map { |part| part.delete_suffix(";") }
        end

        def tokens(section)
          found = []
          rest = section
          until rest.empty?
            kind, match = TOKENS.lazy.map { |name, pattern| [name, rest.match(/\A(?:#{pattern})/)] }.find(&:last)
            text = kind == :literal ? match.captures.compact.first : match[0]
            found << Token.new(kind: kind, text: text, parts: match.captures).freeze
            rest = match.post_match
          end
          found.reject { |token| %i[ignored fill].include?(token.kind) }
        end

        # @return [Array(Array, Boolean)] the section for a value, and whether its sign is to be said
        def chosen(value)
          asked = @sections.map { |section| section.find { |token| token.kind == :condition }&.parts }
          return by_condition(asked, value) if asked.any?

          numbers = @sections.first(3)
          return [numbers[1], false] if value.negative? && numbers.length > 1
          return [numbers[2], false] if value.zero? && numbers.length > 2

          [numbers[0] || [], true]
        end

        def by_condition(asked, value)
          place = asked.index { |condition| condition.nil? || holds?(condition, value) } || return
          [@sections[place], asked[place].nil?]
        end

        def holds?((sign, limit), value)
          value.public_send({ "<>" => :!=, "=" => :== }.fetch(sign, sign.to_sym), limit.to_f)
        end

        def unknown?(section) = section.any? { |token| token.kind == :other && !token.text.match?(PLAIN) }

        def moment(section, value)
          return nil unless value.between?(0, LAST) || kinds(section).include?(:elapsed)

          DateParts.new(section, value, @late_epoch ? EPOCH_1904 : EPOCH).to_s
        end
      end
    end
  end
end
