# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # Lays words out as a cloud (rules.md, tallies): the area of a word goes with its count,
      # the largest first, each at the first free place of an outward spiral from the middle.
      # The same words give the same cloud. Sizes in units of the box.
      class Cloud
        # x, y:: middle of the word; size:: of the type
        Word = Struct.new(:text, :count, :x, :y, :size, keyword_init: true)

        MOST = 60
        # Of the type, for the commonest word and for the rest at least, when all fit.
        LARGEST = 92.0
        SMALLEST = 17.0
        LINE = 1.08
        GAP = 5
        SHRINK = 0.88
        TURNS = 700
        # Radians from point to point of the spiral, and units outward for each radian.
        STEP = 0.28
        OUTWARD = 2.6
        # Widths of letters in parts of the type's size; wide enough for our type at its bold.
        NARROW = /[iljtfrI.,;:'’!|()-]/
        WIDE = /[mwMW@%]/
        FULL = /[^\u0000-\u024F]/

        # @param rows [Array<#text, #count>]
        # @param width [Numeric], height [Numeric] of the box
        # @return [Array<Word>] none overlapping another, all inside the box
        def self.layout(rows, width:, height:) = new(width, height).layout(rows)

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

        def initialize(width, height)
          @width = width.to_f
          @height = height.to_f
        end

        def layout(rows)
          chosen = rows.sort_by { |row| [-row.count, row.text] }.first(MOST)
          return [] if chosen.empty?

          scale = 1.0
          until (placed = attempt(chosen, scale))
            scale *= SHRINK
          end
          placed
        end

        private

        # @return [Array<Word>, nil] nil when they don't fit at this scale
        def attempt(rows, scale)
          most = rows.first.count.to_f
          boxes = []
          rows.map do |row|
            size = ([LARGEST * Math.sqrt(row.count / most), SMALLEST].max * scale).round(1)
            box = place(row.text, size, boxes) || (return nil)
            boxes << box
            Word.new(text: row.text, count: row.count, size: size, x: ((box[0] + box[2]) / 2).round(1),
                     y: ((box[1] + box[3]) / 2).round(1)).freeze
          end
        end

        # The first free place along the spiral. What was in the way last is asked first: it
        # mostly is in the way still.
        def place(text, size, taken)
          wide = ((Cloud.width(text) * size) + GAP) / 2
          high = ((LINE * size) + GAP) / 2
          blocker = nil
          spiral.each do |x, y|
            box = [x - wide, y - high, x + wide, y + high]
            next if !inside?(box) || (blocker && overlap?(box, blocker))

            blocker = taken.find { |other| overlap?(box, other) }
            return box unless blocker
          end
          nil
        end

        # Points of an Archimedean spiral from the middle, flat as the box is.
        def spiral
          @spiral ||= Array.new(TURNS) do |turn|
            angle = turn * STEP
            [(@width / 2) + (angle * OUTWARD * Math.cos(angle)),
             (@height / 2) + (angle * OUTWARD * @height / @width * Math.sin(angle))]
          end
        end

        def inside?(box) = box[0] >= 0 && box[1] >= 0 && box[2] <= @width && box[3] <= @height

        def overlap?(one, other) = one[0] < other[2] && other[0] < one[2] && one[1] < other[3] && other[1] < one[3]
      end
    end
  end
end
