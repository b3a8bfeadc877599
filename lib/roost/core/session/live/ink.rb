# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What the teacher's pen leaves on a slide, or on a blank board: strokes, which come in parts while they are drawn.
      # Everywhere it lies on a sheet of the same size, on which the slide is set the same, so that a circle is around the
      # same word on every device.
      module Ink
        # Of the sheet, in its own units.
        WIDTH = 1280
        HEIGHT = 600
        # Colours are the theme's own, by number (assets/scss/_ink.scss); widths in units.
        COLOURS = %w[Bright Amber Moss Rust].freeze
        WIDTHS = [4, 10].freeze
        PAPERS = { "plain" => "Plain", "ruled" => "Ruled", "squared" => "Squared" }.freeze
        # Blank pages in one session.
        MOST_BOARDS = 40
        MOST_PARTS = 400
        MOST_POINTS = 100
        # Pieces on one page: a quarter of an hour of drawing.
        MOST_PIECES = 20_000
        STROKE = /\A[\w-]{8,40}\z/
        POINTS = /\A-?\d{1,5},-?\d{1,5}(?: -?\d{1,5},-?\d{1,5}){0,#{MOST_POINTS - 1}}\z/
        BROKEN = "That stroke could not be read. Reload the page."

        # A piece of a stroke. points:: Array of whole numbers, x and y in turn; colour, width:: places in COLOURS, WIDTHS
        Part = Struct.new(:page, :stroke, :part, :colour, :width, :points, keyword_init: true)
        # A whole stroke, as it is kept. parts:: Array of numbers of parts and their points, in order
        Stroke = Struct.new(:stroke, :colour, :width, :parts, keyword_init: true)

        class << self
          # @param form [Hash{String=>String}] "page", "stroke", "part", "colour", "width", "points" as "x,y x,y …"
          # @return [Reading] of Part
          def read(form)
            part, colour, width = %w[part colour width].map { |name| Integer(form[name].to_s, 10, exception: false) }
            fits = form["stroke"].to_s.match?(STROKE) && (0...MOST_PARTS).cover?(part) && (0...COLOURS.length).cover?(colour) &&
                   (0...WIDTHS.length).cover?(width) && form["points"].to_s.match?(POINTS)
            return Reading.refused(BROKEN) unless fits

            Reading.ok(Part.new(page: form["page"].to_s, stroke: form["stroke"], part: part, colour: colour, width: width,
                                points: within(form["points"])).freeze)
          end

          # The page that is up: a slide's, or a blank board's.
          # @param state [State]
          # @return [String]
          def page(state) = state.board ? board(state.board) : state.slide_id

          # @param number [Integer] of a blank page, from 0
          def board(number) = "board-#{number + 1}"

          private

          def within(text)
            text.scan(/-?\d+/).map(&:to_i).each_slice(2).flat_map { |x, y| [x.clamp(0, WIDTH), y.clamp(0, HEIGHT)] }
          end
        end
      end
    end
  end
end
