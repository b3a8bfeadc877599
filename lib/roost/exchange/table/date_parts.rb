# frozen_string_literal: true

module Roost
  module Exchange
    class Table
      # A day and a time as a section of a number format has them. Loads nothing else of the program.
      class DateParts
        DAY = 86_400

        # @param section [Array<NumberFormat::Token>]
        # @param value [Numeric] days since epoch
        # @param epoch [Date]
        def initialize(section, value, epoch)
          @section = section
          @seconds = (value * DAY).round(section.each_index.any? { |place| fraction?(place) } ? 1 : 0)
          @date = epoch + (@seconds / DAY).floor
          @half = section.any? { |token| token.kind == :half }
        end

        def to_s = @section.each_with_index.map { |token, place| part(token, place) }.join.strip

        private

        def part(token, place)
          case token.kind
          when :date then date(token.text.downcase, place)
          when :elapsed then elapsed(token.parts.first.downcase)
          when :half then half(token.text)
          when :point then fraction?(place) ? "" : token.text
          when :digit then fraction?(place - 1) ? ".#{((@seconds % 1) * 10).floor}" : ""
          when :space then " "
          when :condition then ""
          else token.text
          end
        end

        # A point with a nought after it: tenths of a second.
        def fraction?(place) = @section[place]&.kind == :point && @section[place + 1]&.kind == :digit

        def date(text, place)
          case text[0]
          when "y", "e" then year(text)
          when "m" then minutes?(place) ? padded(minute, text) : month(text.length)
          when "d" then day(text.length)
          when "h" then padded(hour, text)
          else padded((@seconds % 60).floor, text)
          end
        end

        def year(text)
          text.length > 2 || text.start_with?("e") ? Kernel.format("%04d", @date.year) : Kernel.format("%02d", @date.year % 100)
        end

        # After hours, or before seconds, "m" is minutes.
        def minutes?(place)
          before = times(@section.first(place)).last
          after = times(@section.drop(place + 1)).first
          before.to_s.match?(/h/i) || after.to_s.match?(/s/i)
        end

        def times(tokens) = tokens.select { |token| %i[date elapsed].include?(token.kind) }.map(&:text)

        def month(length)
          name = NumberFormat::MONTHS[@date.month]
          { 1 => @date.month.to_s, 2 => padded(@date.month, "mm"), 3 => name[0, 3], 5 => name[0] }.fetch(length, name)
        end

        def day(length)
          name = NumberFormat::DAYS[@date.wday]
          { 1 => @date.day.to_s, 2 => padded(@date.day, "dd"), 3 => name[0, 3] }.fetch(length, name)
        end

        def hour
          whole = (@seconds % DAY / 3600).floor
          @half ? ((whole - 1) % 12) + 1 : whole
        end

        def minute = (@seconds % 3600 / 60).floor

        def half(text)
          word = @seconds % DAY >= DAY / 2 ? "PM" : "AM"
          text.length > 3 ? word : word[0]
        end

        def elapsed(text)
          whole = { "h" => 3600, "m" => 60, "s" => 1 }.fetch(text[0])
          padded((@seconds / whole).floor, text)
        end

        def padded(number, text) = number.to_s.rjust([text.length, 2].min, "0")
      end
    end
  end
end
