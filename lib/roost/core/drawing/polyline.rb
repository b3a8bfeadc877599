# frozen_string_literal: true

module Roost
  module Core
    module Drawing
      # A drawn line with fewer points, nowhere farther from the line as it was drawn than a
      # tolerance. Source: Ramer (1972), Douglas and Peucker (1973). They take n² steps at worst;
      # so a line is taken in pieces of PIECE points, whose ends stay.
      module Polyline
        PIECE = 16

        # @param points [Array<Array(Integer, Integer)>]
        # @param tolerance [Numeric] in the units of the points
        # @yieldparam place [Integer] of a point; where the block is true the point stays
        # @return [Array<Integer>] places of the points that stay, the first and the last among them
        def self.kept(points, tolerance, &stays)
          last = points.length - 1
          fixed = (0..last).select { |place| (place % PIECE).zero? || place == last || stays&.call(place) }
          fixed.each_cons(2).flat_map { |from, to| [from, *between(points, from, to, tolerance**2)] } + fixed.last(1)
        end

        # Places strictly between two points that stay.
        def self.between(points, from, to, square)
          place = nil
          far = square
          ((from + 1)...to).each do |each|
            off = off(points[each], points[from], points[to])
            if off > far
              place = each
              far = off
            end
          end
          place ? [*between(points, from, place, square), place, *between(points, place, to, square)] : []
        end

        # @return [Numeric] the square of a point's distance from the stretch between two others
        def self.off((px, py), (ax, ay), (bx, by))
          dx = bx - ax
          dy = by - ay
          x = px - ax
          y = py - ay
          along = (x * dx) + (y * dy)
          length = (dx * dx) + (dy * dy)
          return (x * x) + (y * y) if along <= 0
          return ((px - bx)**2) + ((py - by)**2) if along >= length

          (((x * dy) - (y * dx))**2) / length.to_f
        end
        private_class_method :between, :off
      end
    end
  end
end
