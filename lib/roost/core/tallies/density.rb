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

        # columns, rows:: of the grid
        attr_reader :columns, :rows

        # @param points [Array<Hash>] with "x" and "y" in fractions of width and height
        # @param aspect [Float] height of the picture divided by its width
        # @param onto [Density, nil] of other points on the same picture, which these are added to
        def initialize(points, aspect:, onto: nil)
          @columns = ACROSS
          @rows = [(ACROSS * aspect).round, 1].max
          @sums = onto ? onto.sums.dup : Array.new(columns * rows, 0.0)
          points.each { |point| add(point["x"], point["y"] * aspect, aspect / rows) }
          @sums.freeze
          freeze
        end

        # Row by row, 1.0 where it is thickest.
        # @return [Array<Float>]
        def cells
          most = sums.max
          most.positive? ? sums.map { |sum| sum / most } : sums
        end

        protected

        attr_reader :sums

        private

        # The kernel is the product of one along the row and one down the column.
        # @param x [Float], y [Float] in widths; high: of a cell, in widths
        def add(x, y, high)
          wide = 1.0 / columns
          first = span(x, wide, columns)
          across = first.map { |column| fall(((column + 0.5) * wide) - x) }
          span(y, high, rows).each do |row|
            down = fall(((row + 0.5) * high) - y)
            at = (row * columns) + first.begin
            across.each do |share|
              sums[at] += share * down
              at += 1
            end
          end
        end

        def fall(distance) = Math.exp(-(distance * distance) / (2 * SIGMA * SIGMA))

        # The cells that a point at `middle` reaches.
        def span(middle, size, count)
          reach = REACH * SIGMA
          ((middle - reach) / size).floor.clamp(0, count - 1)..((middle + reach) / size).floor.clamp(0, count - 1)
        end
      end
    end
  end
end
