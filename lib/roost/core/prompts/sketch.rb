# frozen_string_literal: true

require "digest"
require "json"

module Roost
  module Core
    module Prompts
      # Draws on a blank sheet or over the slide's picture. A value is
      # {"strokes" => [stroke]}; a stroke is {"tool", "colour", "points" => [x, y, …]}, with
      # "pressure" (1 to 9 a point) where a pen told it, "text" for text and "sticker" for a
      # sticker. Line, arrow, rectangle and ellipse have two points, text and stickers one.
      # Coordinates are whole units of a sheet 1200 wide and 900 high. "no" changes with the strokes.
      # Lines are kept with no more points than it takes to look the same (Polyline).
      class Sketch < Prompt
        # drawings:: [Drawing]
        Tally = Struct.new(:drawings, :answered, keyword_init: true)
        Drawing = Struct.new(:seat_id, :value, keyword_init: true)

        WIDTH = 1200
        HEIGHT = 900
        COLOURS = { "ink" => "#251f33", "rust" => "#b2432a", "moss" => "#2c7a57",
                    "water" => "#1f6391", "amber" => "#d98a12" }.freeze
        # Tools by how many points a stroke of theirs has; nil is any number.
        TOOLS = { "pen" => nil, "highlighter" => nil, "line" => 2, "arrow" => 2, "rectangle" => 2, "ellipse" => 2,
                  "text" => 1, "sticker" => 1 }.freeze
        STICKERS = %w[star tick cross question heart eye].freeze
        PRESSURES = (1..9)
        MOST_STROKES = 600
        # Points as they are sent, and as they are kept.
        MOST_POINTS = 10_000
        MOST_KEPT = 8_000
        # Half a pixel of a sheet a thousand pixels wide.
        TOLERANCE = 0.6
        MOST_BYTES = 200_000
        TEXT_LIMIT = 80
        ON_A_PAGE = 18
        # Drawings laid over each other.
        MOST_OVER = 100

        def self.label = "Sketch"
        def self.place = 5
        def self.purpose = "Draw on a blank sheet or over the picture"
        def self.ways = { "sheet" => "Side by side", "overlay" => "All on one sheet" }

        def self.blank
          { "over_picture" => false }
        end

        def instruction = over_picture? ? "Draw on the picture" : "Draw your answer"

        def edited(form)
          read_common(form).map do |common|
            with_settings(common.merge("over_picture" => form["over_picture"] == "1"))
          end
        end

        def rules = over_picture? ? ["on the picture"] : []

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          new(id: id, settings: {}).edited(common.merge("over_picture" => rules.include?("on the picture") ? "1" : "0"))
        end

        def over_picture? = settings["over_picture"]

        def uses_picture? = over_picture?

        # @param raw [Hash] "strokes" holds the strokes as JSON text
        def read(raw, _names = nil)
          text = field(raw, "strokes").to_s
          return LARGE if text.bytesize > MOST_BYTES
          return UNREADABLE unless text.valid_encoding?

          strokes = text.strip.empty? ? [] : JSON.parse(text, max_nesting: 5)
          read_strokes(strokes)
        rescue JSON::ParserError, EncodingError
          UNREADABLE
        end

        def blank_answer?(value) = value["strokes"].empty?

        def missing = "Draw something first."

        def gathered(values, **)
          given = values.reject { |_, value| blank_answer?(value) }
          drawings = given.map { |seat_id, value| Drawing.new(seat_id: seat_id, value: value).freeze }
          Tally.new(drawings: drawings, answered: drawings.length).freeze
        end

        def pages(tally, way) = way == "overlay" ? 1 : pages_of(tally.drawings.length, ON_A_PAGE)

        def page(tally, way, number)
          return tally if way == "overlay"

          Tally.new(**tally.to_h, drawings: tally.drawings.drop(number * ON_A_PAGE).first(ON_A_PAGE)).freeze
        end

        def plain(value)
          strokes = value["strokes"]
          texts = strokes.select { |stroke| stroke["tool"] == "text" }.map { |stroke| stroke["text"] }
          count = "#{strokes.length} #{strokes.length == 1 ? "stroke" : "strokes"}"
          texts.empty? ? "sketch, #{count}" : "sketch, #{count}: #{texts.join("; ")}"
        end

        # The outline of a wing: one edge, a fan of feathers, and now and then a word.
        def imagine(_student, random)
          colour = COLOURS.keys[random.rand(COLOURS.length)]
          left = 150 + random.rand(120)
          base = 560 + random.rand(80)
          lift = 260 + random.rand(160)
          edge = (0..24).flat_map { |step| [left + (step * 34), (base - (lift * Math.sin(step * Math::PI / 26))).round] }
          feathers = (0..(5 + random.rand(4))).map do |place|
            x = left + 100 + (place * 90)
            top = (base - (lift * Math.sin((x - left) / 34.0 * Math::PI / 26))).round
            { "tool" => "pen", "colour" => colour,
              "points" => [x, top, x - 20, top + 120, x - 60, top + 200 + random.rand(60)] }
          end
          strokes = [{ "tool" => "pen", "colour" => "ink", "points" => edge }, *feathers]
          if random.rand < 0.3
            strokes << { "tool" => "text", "colour" => "ink", "points" => [left, base + 150], "text" => "long feathers" }
          end
          { "strokes" => strokes, "no" => number(strokes) }
        end

        UNREADABLE = Reading.refused("That drawing could not be read. Reload the page and draw again.")
        LARGE = Reading.refused("That drawing is too large. Undo a few strokes.")
        private_constant :UNREADABLE, :LARGE

        private

        def read_strokes(strokes)
          return UNREADABLE unless strokes.is_a?(Array)
          return Reading.refused("That is too many strokes. Undo a few.") if strokes.length > MOST_STROKES

          read = strokes.map { |stroke| read_stroke(stroke) }
          return UNREADABLE unless read.all?
          return LARGE if points_of(read) > MOST_POINTS

          kept = read.map { |stroke| TOOLS[stroke["tool"]] ? stroke : simplified(stroke) }
          points_of(kept) > MOST_KEPT ? LARGE : Reading.ok({ "strokes" => kept, "no" => number(kept) })
        end

        def points_of(strokes) = strokes.sum { |stroke| stroke["points"].length / 2 }

        def number(strokes) = Digest::SHA256.hexdigest(JSON.generate(strokes))[0, 10]

        # Where the pressure changes, points stay.
        def simplified(stroke)
          points = stroke["points"].each_slice(2).to_a
          pressure = stroke["pressure"]
          places = Polyline.kept(points, TOLERANCE) { |place| pressure && pressure[place] != pressure[place - 1] }
          kept = stroke.merge("points" => points.values_at(*places).flatten)
          pressure ? kept.merge("pressure" => pressure.values_at(*places)) : kept
        end

        def read_stroke(stroke)
          return nil unless stroke.is_a?(Hash) && TOOLS.key?(stroke["tool"]) && COLOURS.key?(stroke["colour"])

          points = stroke["points"]
          return nil unless points?(points)

          wanted = TOOLS[stroke["tool"]]
          return nil if wanted == 2 && points.length == 2

          read = { "tool" => stroke["tool"], "colour" => stroke["colour"],
                   "points" => wanted ? points.first(wanted * 2) : points }
          with_details(read, stroke)
        end

        def with_details(read, stroke)
          case read["tool"]
          when "text"
            label = Text.read(stroke["text"], limit: TEXT_LIMIT, what: "The text", lines: false)
            label.ok? && !label.value.empty? ? read.merge("text" => label.value) : nil
          when "sticker" then STICKERS.include?(stroke["sticker"]) ? read.merge("sticker" => stroke["sticker"]) : nil
          when "pen" then pressure?(stroke) ? read.merge("pressure" => stroke["pressure"]) : read
          else read
          end
        end

        def pressure?(stroke)
          pressure = stroke["pressure"]
          pressure.is_a?(Array) && pressure.length * 2 == stroke["points"].length &&
            pressure.all? { |each| each.is_a?(Integer) && PRESSURES.cover?(each) }
        end

        def points?(points)
          points.is_a?(Array) && points.length.even? && points.length >= 2 &&
            points.each_slice(2).all? do |x, y|
              x.is_a?(Integer) && y.is_a?(Integer) && x.between?(0, WIDTH) && y.between?(0, HEIGHT)
            end
        end
      end
    end
  end
end
