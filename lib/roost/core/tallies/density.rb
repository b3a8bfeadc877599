# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # Where points lie thick (rules.md, tallies): a density over a grid 48 cells wide, with a
      # Gaussian kernel of σ = 3 % of the width.
      class Density
        ACROSS = 48
        SIGMA = 0.03
        REACH = 3 # σ beyond which the kernel is taken for nothing

        # columns, rows:: of the grid; cells:: row by row, 1.0 where it is thickest
        attr_reader :columns, :rows, :cells

        # @param points [Array<Hash>] with "x" and "y" in fractions of width and height
        # @param aspect [Float] height of the picture divided by its width
        def initialize(points, aspect:)
          @columns = ACROSS
          @rows = [(ACROSS * aspect).round, 1].max
          @cells = Array.new(columns * rows, 0.0)
          points.each { |point| add(point["x"], point["y"] * aspect, aspect / rows) }
          most = cells.max
          cells.map! { |cell| cell / most } if most.positive?
          freeze
        end

        private

        # The kernel is the product of one along the row and one down the column.
        # @param x [Float], y [Float] in widths; high: of a cell, in widths
        def add(x, y, high)
          across = falls(x, 1.0 / columns, columns)
          falls(y, high, rows).each do |row, down|
            across.each { |column, share| cells[(row * columns) + column] += share * down }
          end
        end

        # @return [Array<Array(Integer, Float)>] cells that a point at `middle` reaches, and how much
        def falls(middle, size, count)
          span(middle, REACH * SIGMA, size, count).map do |cell|
            [cell, Math.exp(-((((cell + 0.5) * size) - middle)**2) / (2 * (SIGMA**2)))]
          end
        end

        def span(middle, reach, size, count)
          ((middle - reach) / size).floor.clamp(0, count - 1)..((middle + reach) / size).floor.clamp(0, count - 1)
        end
      end
    end
  end
end
