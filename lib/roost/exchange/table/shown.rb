# frozen_string_literal: true

module Roost
  module Exchange
    class Table
      # A cell of a workbook as its program shows it: percentages, money, dates and times; other
      # numbers as they are. Loads nothing else of the program.
      module Shown
        # A literal in a number format that is a sign of money, before or after the digits: "£", [$€-407] or $.
        MONEY = /\[\$(?<listed>[^\]-]+)[^\]]*\]|"(?<quoted>\s*[^\d\s"]{1,4}\s*)"|(?<bare>[$£€¥])/
        DATES = /[dmyhs]/i
        PLACES = /\.(0+)/

        # @param cell [Roo::Excelx::Cell::Base]
        # @return [String]
        def self.of(cell)
          value = cell.value
          case value
          when Float, Integer then number(value, cell.respond_to?(:format) ? cell.format.to_s : "")
          when ::Time, ::DateTime, ::Date then moment(cell, value)
          else value.to_s
          end
        end

        def self.number(value, format)
          return "#{fixed(value * 100, format)}%" if format.include?("%")

          money = format.match(MONEY) unless format.match?(/general/i)
          money ? priced(value, format, money) : plain(value)
        end

        # Without what a computer's way of keeping numbers adds (0.30000000000000004).
        def self.plain(value)
          value == value.round && value.abs < 10**15 ? value.round.to_s : Kernel.format("%.15g", value)
        end

        def self.fixed(value, format) = Kernel.format("%.#{format[PLACES, 1].to_s.length}f", value)

        def self.priced(value, format, money)
          sign = money.named_captures.values.compact.first
          amount = fixed(value.abs, format)
          amount = amount.sub(/\A\d+/) { |whole| whole.reverse.gsub(/(\d{3})(?=\d)/, '\1,').reverse } if format.include?(",")
          first = money.begin(0) < (format.index(/[#0]/) || 0)
          between = " " if format.match?(/[#0]\s+["\[]|["\]]\s+[#0]/)
          "#{"-" if value.negative?}#{(first ? [sign, amount] : [amount, sign]).join(between)}".strip
        end

        # Roo shows dates and times in most ways there are; what it does not know is said plainly.
        def self.moment(cell, value)
          shown = cell.formatted_value
          shown.match?(/\d/) ? shown : iso(value)
        rescue StandardError
          iso(value)
        end

        def self.iso(value) = value.is_a?(::DateTime) ? value.strftime("%Y-%m-%d %H:%M") : value.strftime("%Y-%m-%d")
        private_class_method :number, :plain, :fixed, :priced, :moment, :iso
      end
    end
  end
end
