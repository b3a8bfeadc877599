# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # Lays words out as a cloud (rules.md, tallies): the area of a word goes with its count,
      # the largest first, each at the first free place of an outward spiral from the middle.
      # The same words give the same cloud; words that were there before keep their places while
      # they can. Where not all fit, the type gets smaller down to what can be read from the back of a
      # room, and then the rarest are left out. Sizes in units of the box.
      class Cloud
        # key:: what it is known by; x, y:: middle of the word; size:: of the type
        Word = Struct.new(:key, :text, :count, :x, :y, :size, keyword_init: true)

        MOST = 60
        # Of the type, for the commonest word where all fit, and for any at least.
        LARGEST = 92.0
        SMALLEST = 17.2
        # Share of the words that stay when some are left out.
        KEPT = 0.9
        LINE = 1.08
        GAP = 5
        SHRINK = 0.88
        # Share of the box that words fill at most; more is not tried.
        FULL_BOX = 0.58
        TURNS = 700
        # Radians from point to point of the spiral, and units outward for each radian.
        STEP = 0.28
        OUTWARD = 2.6
        # Widths of letters in parts of the type's size; wide enough for our type at its bold.
        NARROW = /[iljtfrI.,;:'’!|()-]/
        WIDE = /[mwMW@%]/
        FULL = /[^\u0000-\u024F]/

        # @param rows [Array<#key, #text, #count>]
        # @param width [Numeric], height [Numeric] of the box
        # @param before [Array<Word>] the cloud a moment ago
        # @return [Array<Word>] none overlapping another, all inside the box
        def self.layout(rows, width:, height:, before: []) = new(width, height, before).layout(rows)

        # @return [Float] width of a text at a size of 1
        def self.width(text)
          text.each_char.sum do |char|
            case char
            when NARROW then 0.36
            when WIDE then 0.95
            when FULL then 1.05
            when /[A-Z0-9]/ then 0.72
            else 0.6
            end
          end
        end

        def initialize(width, height, before)
          @width = width.to_f
          @height = height.to_f
          @widths = {}
          @before = before.to_h { |word| [word.key, word] }
        end

        def layout(rows)
          chosen = rows.sort_by { |row| [-row.count, row.text] }.first(MOST)
          return [] if chosen.empty?

          @most = chosen.first.count.to_f
          @smallest = SMALLEST
          scale = 1.0
          until (placed = attempt(chosen, scale))
            if LARGEST * scale > @smallest then scale *= SHRINK
            elsif chosen.length > 1 then chosen = chosen.first((chosen.length * KEPT).floor)
            else @smallest *= SHRINK
            end
          end
          placed.sort_by { |word| [-word.count, word.text] }
        end

        private

        def area(rows, scale)
          rows.sum { |row| extent(row.text, size(row, scale)).then { |wide, high| 4 * wide * high } }
        end

        def size(row, scale) = [LARGEST * Math.sqrt(row.count / @most) * scale, @smallest].max.round(1)

        # Half the width and height that a text takes, with the gap around it.
        def extent(text, size) = [((width(text) * size) + GAP) / 2, ((LINE * size) + GAP) / 2]

        # Asked for at every size that is tried.
        def width(text) = @widths[text] ||= Cloud.width(text)

        # Those that have a place come first, so that none is taken from them.
        # @return [Array<Word>, nil] nil when they don't fit at this scale
        def attempt(rows, scale)
          return nil if area(rows, scale) > FULL_BOX * @width * @height

          rows = rows.partition { |row| @before.key?(row.key) }.flatten(1)
          boxes = []
          free = nil
          least = least(rows, scale)
          rows.map do |row|
            size = size(row, scale)
            wide, high = extent(row.text, size)
            x, y = kept(row, wide, high, boxes) || place(wide, high, boxes, free ||= free(boxes, least)) || (return nil)
            boxes << [x, y, wide, high]
            free&.reject! { |point| overlap?(*point, *least, boxes.last) }
            Word.new(key: row.key, text: row.text, count: row.count, size: size, x: x, y: y).freeze
          end
        end

        # Half the least width and height that any word has: so far from what is taken every
        # other word's middle has to stay, which rules out most places at once.
        def least(rows, scale) = rows.map { |row| extent(row.text, size(row, scale)) }.transpose.map(&:min)

        def free(boxes, least) = spiral.reject { |point| boxes.any? { |box| overlap?(*point, *least, box) } }

        # The place a word had, if it is still free.
        def kept(row, wide, high, boxes)
          word = @before[row.key]
          return nil unless word && inside?(word.x, word.y, wide, high)

          [word.x, word.y] if boxes.none? { |other| overlap?(word.x, word.y, wide, high, other) }
        end

        # The first free place along the spiral. What was in the way last is asked first: it
        # mostly is in the way still.
        def place(wide, high, boxes, free)
          last = nil
          free.find do |x, y|
            next if !inside?(x, y, wide, high) || (last && overlap?(x, y, wide, high, last))

            last = boxes.find { |other| overlap?(x, y, wide, high, other) }
            last.nil?
          end
        end

        # Points of an Archimedean spiral from the middle, flat as the box is.
        def spiral
          @spiral ||= Array.new(TURNS) do |turn|
            angle = turn * STEP
            [((@width / 2) + (angle * OUTWARD * Math.cos(angle))).round(1),
             ((@height / 2) + (angle * OUTWARD * @height / @width * Math.sin(angle))).round(1)]
          end
        end

        def inside?(x, y, wide, high) = x >= wide && y >= high && x + wide <= @width && y + high <= @height

        # Boxes are their middle and half their width and height.
        def overlap?(x, y, wide, high, other)
          (x - other[0]).abs < wide + other[2] && (y - other[1]).abs < high + other[3]
        end
      end
    end
  end
end
