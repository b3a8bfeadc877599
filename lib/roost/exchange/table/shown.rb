# frozen_string_literal: true

require_relative "number_format"
require_relative "date_parts"
require_relative "digits"

module Roost
  module Exchange
    class Table
      # A cell of a workbook as its program shows it. Loads nothing else of the program.
      class Shown
        # A number as it is kept, of which the format is not understood.
        class AsStored < String
          # @return [String]
          attr_reader :format

          def initialize(text, format)
            super(text)
            @format = format
          end
        end

        LONGEST = 60 # of a format that is named

        # @param late_epoch [Boolean] whether the workbook counts its days from there
        def initialize(late_epoch:)
          @formats = Hash.new { |all, code| all[code] = NumberFormat.new(code, late_epoch: late_epoch) }
        end

        # @param cell [Roo::Excelx::Cell::Base]
        # @return [String] AsStored where its format is not understood
        def of(cell)
          return cell.value.to_s unless cell.respond_to?(:format) && !cell.value.is_a?(String)

          number = Float(cell.cell_value)
          @formats[cell.format.to_s].show(number) || AsStored.new(NumberFormat.plain(number), cell.format.to_s[0, LONGEST])
        rescue ArgumentError, TypeError, FloatDomainError
          cell.value.to_s
        end
      end
    end
  end
end
