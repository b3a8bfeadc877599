# frozen_string_literal: true

module Roost
  module Web
    # Strokes of a drawing as SVG text, as assets/js/shared/strokes.js draws them. Everything here is safe to
    # put into a page as it is.
    module Strokes
      WIDTHS = { "pen" => 6, "line" => 6, "arrow" => 6, "rectangle" => 6, "ellipse" => 6, "highlighter" => 30 }.freeze
      HEAD = 34 # units of an arrow's head
      STICKERS = {
        "star" => "M0-48 12-16 46-15 19 6 29 40 0 20-29 40-19 6-46-15-12-16Z",
        "tick" => "M-44 4-30-12-12 6 32-38 46-24-12 36Z",
        "cross" => "M-40-28-28-40 0-12 28-40 40-28 12 0 40 28 28 40 0 12-28 40-40 28-12 0Z",
        "question" => "M-26-22C-26-56 30-56 30-20 30 2 8 2 8 20H-10C-10-6 12-4 12-20 12-34-8-34-8-22ZM-11 28H9V46H-11Z",
        "heart" => "M0 42C-64-2-44-46-18-42-8-40 0-30 0-24 0-30 8-40 18-42 44-46 64-2 0 42Z",
        "eye" => "M-50 0C-28-34 28-34 50 0 28 34-28 34-50 0ZM0-18A18 18 0 1 0 0 18 18 18 0 1 0 0-18Z"
      }.freeze

      module_function

      # @param strokes [Array<Hash>] as Core::Drawing::Strokes reads them
      # @return [String] SVG elements in units of the sheet
      def svg(strokes) = strokes.map { |stroke| stroke(stroke) }.join

      def stroke(stroke)
        case stroke["tool"]
        when "text" then text_stroke(stroke)
        when "sticker" then sticker(stroke["sticker"], stroke["points"], colour(stroke))
        when "rectangle", "ellipse" then shape_stroke(stroke)
        when "arrow" then arrow_stroke(stroke)
        else stroke["pressure"] ? pressed_stroke(stroke) : polyline(stroke["points"], stroke)
        end
      end

      def polyline(points, stroke, width = WIDTHS.fetch(stroke["tool"]))
        pairs = points.each_slice(2).map { |x, y| "#{x},#{y}" }
        pairs *= 2 if pairs.length == 1
        opacity = stroke["tool"] == "highlighter" ? ' stroke-opacity="0.35"' : ""
        %(<polyline points="#{pairs.join(" ")}" fill="none" stroke="#{colour(stroke)}" stroke-width="#{width}") +
          %( stroke-linecap="round" stroke-linejoin="round"#{opacity}/>)
      end

      # Points pressed alike are one line of their width; each goes on where the last one ended.
      def pressed_stroke(stroke)
        points = stroke["points"].each_slice(2).to_a
        runs = points.zip(stroke["pressure"]).slice_when { |one, other| one[1] != other[1] }
        last = []
        runs.map do |run|
          line = last + run.map(&:first)
          last = [run.last[0]]
          polyline(line.flatten, stroke, run.first[1] + 1)
        end.join
      end

      # The line with a head of two strokes, 30 degrees to each side.
      def arrow_stroke(stroke)
        x1, y1, x2, y2 = stroke["points"]
        angle = Math.atan2(y2 - y1, x2 - x1)
        ends = [0.5, -0.5].map do |turn|
          [(x2 - (HEAD * Math.cos(angle + turn))).round, (y2 - (HEAD * Math.sin(angle + turn))).round]
        end
        polyline([x1, y1, x2, y2], stroke) + polyline([*ends[0], x2, y2, *ends[1]], stroke)
      end

      def shape_stroke(stroke)
        x1, y1, x2, y2 = stroke["points"]
        drawn = %(fill="none" stroke="#{colour(stroke)}" stroke-width="#{WIDTHS.fetch(stroke["tool"])}")
        left, right = [x1, x2].minmax
        top, bottom = [y1, y2].minmax
        if stroke["tool"] == "rectangle"
          return %(<rect x="#{left}" y="#{top}" width="#{right - left}" height="#{bottom - top}" #{drawn}/>)
        end

        %(<ellipse cx="#{(left + right) / 2}" cy="#{(top + bottom) / 2}" rx="#{(right - left) / 2}" ) +
          %(ry="#{(bottom - top) / 2}" #{drawn}/>)
      end

      # Our own, 100 units wide around 0 0.
      def sticker(name, point, colour)
        %(<path d="#{STICKERS.fetch(name)}" transform="translate(#{point.join(" ")})" fill="#{colour}"/>)
      end

      def text_stroke(stroke)
        x, y = stroke["points"]
        text = Rack::Utils.escape_html(stroke["text"])
        %(<text x="#{x}" y="#{y}" font-size="44" font-family="sans-serif" fill="#{colour(stroke)}">#{text}</text>)
      end

      def colour(stroke) = Core::Drawing::Sheet::COLOURS.fetch(stroke["colour"])
    end
  end
end
