# frozen_string_literal: true

module Roost
  module Web
    # Our own drawings as SVG text: the bird, the wire, strokes of a sketch. Colours and
    # states are classes, set in the stylesheet. Everything here is safe to put into a
    # page as it is.
    module Drawings
      BIRD = "M3 35 L10 25 C10 12 17 5 25 5 C31 5 34 9 35 12 L43 15 L35 18.5 C35 28 28 34 18 34 C14.5 34 11.5 33 9.5 31.5 Z"
      WIRE_WIDTH = 1200
      ROW_HEIGHT = 62
      BIRD_WIDTH = 32.0
      BIRDS_A_WIRE = 36
      MOST_WIRES = 3
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

      # @param state [Symbol] :answered, :writing, :here or :away
      def bird(state)
        %(<svg class="bird is-#{state}" viewBox="0 0 46 40" aria-hidden="true">#{bird_parts}</svg>)
      end

      def bird_parts = %(<path d="#{BIRD}"/><circle cx="28" cy="13" r="1.9"/>)

      # The row of birds, one a seat, on wires that sag a little: one wire for a class,
      # two or three, and smaller birds, for more.
      # @param states [Array<Symbol>]
      def wire(states)
        wires = states.length <= BIRDS_A_WIRE ? 1 : (states.length / 100.0).ceil.clamp(2, MOST_WIRES)
        per_wire = [(states.length / wires.to_f).ceil, 1].max
        size = [WIRE_WIDTH / (per_wire + 1.0) / BIRD_WIDTH, 1.0].min
        height = ROW_HEIGHT * size
        rows = states.empty? ? [[]] : states.each_slice(per_wire).to_a
        body = rows.each_with_index.map { |row, place| wire_row(row, per_wire, place * height, size) }.join
        %(<svg class="wire" viewBox="0 0 #{WIRE_WIDTH} #{(rows.length * height).round(1)}" aria-hidden="true">#{body}</svg>)
      end

      def wire_row(row, per_wire, top, size)
        base = (top + (46 * size)).round(1)
        step = WIRE_WIDTH / (per_wire + 1.0)
        birds = row.each_with_index.map do |state, place|
          x = step * (place + 1)
          move = "translate(#{(x - (20 * size)).round(1)} #{(base + sag(x) - (36 * size)).round(1)}) scale(#{size.round(3)})"
          %(<g class="bird is-#{state}" transform="#{move}">#{bird_parts}</g>)
        end
        %(<path class="line" d="M0 #{base} Q#{WIRE_WIDTH / 2} #{base + 14} #{WIRE_WIDTH} #{base}"/>#{birds.join})
      end

      # Height of the wire's curve (a quadratic with its control point 14 below the ends).
      def sag(x) = 28 * (x / WIRE_WIDTH) * (1 - (x / WIRE_WIDTH))

      # A disc that sinks behind the wire; sun-timer moves it.
      # @param share [Float] of the time that is left, 0 to 1
      def sun(share)
        disc = %(<circle cx="30" cy="#{(46 - (28 * share)).round(1)}" r="15" clip-path="url(#sun-sky)"/>)
        sky = %(<clipPath id="sun-sky"><rect width="60" height="30"/></clipPath>)
        %(<svg class="sun" viewBox="0 0 60 36" aria-hidden="true">#{sky}#{disc}<path d="M2 30 H58"/></svg>)
      end

      # @param value [Hash] of a sketch prompt: "strokes"
      # @return [String] the strokes as SVG elements in units of the sheet
      def strokes(value) = value["strokes"].map { |stroke| stroke(stroke) }.join

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
        %(<text x="#{x}" y="#{y}" font-size="44" font-family="sans-serif" fill="#{colour(stroke)}">#{Rack::Utils.escape_html(stroke["text"])}</text>)
      end

      def colour(stroke) = Core::Prompts::Sketch::COLOURS.fetch(stroke["colour"])
    end
  end
end
