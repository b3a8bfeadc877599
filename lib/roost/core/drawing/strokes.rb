# frozen_string_literal: true

require "digest"
require "json"

module Roost
  module Core
    module Drawing
      # Strokes as they come from a device: read, limited, and kept with no more points than it takes
      # to look the same. A stroke is {"tool", "colour", "points" => [x, y, …]}, with "pressure" (1 to 9 a
      # point) where a pen told it, "text" for text and "sticker" for a sticker. Line, arrow, rectangle and
      # ellipse have two points, text and stickers one. Coordinates are whole units of the Sheet.
      module Strokes
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
        TEXT_LIMIT = 80
        UNREADABLE = Reading.refused("That drawing could not be read. Reload the page and draw again.")
        LARGE = Reading.refused("That drawing is too large. Undo a few strokes.")
        private_constant :UNREADABLE, :LARGE

        class << self
          # @param strokes anything that was sent as strokes
          # @return [Reading] of an Array of strokes
          def read(strokes)
            return UNREADABLE unless strokes.is_a?(Array)
            return Reading.refused("That is too many strokes. Undo a few.") if strokes.length > MOST_STROKES

            read = strokes.map { |stroke| read_stroke(stroke) }
            return UNREADABLE unless read.all?
            return LARGE if points_of(read) > MOST_POINTS

            kept = read.map { |stroke| TOOLS[stroke["tool"]] ? stroke : simplified(stroke) }
            points_of(kept) > MOST_KEPT ? LARGE : Reading.ok(kept)
          end

          # Changes with the strokes.
          # @return [String]
          def fingerprint(strokes) = Digest::SHA256.hexdigest(JSON.generate(strokes))[0, 10]

          private

          def points_of(strokes) = strokes.sum { |stroke| stroke["points"].length / 2 }

          # Where the pressure changes, points stay.
          def simplified(stroke)
            points = stroke["points"].each_slice(2).to_a
            pressure = stroke["pressure"]
            places = Polyline.kept(points, TOLERANCE) { |place| pressure && pressure[place] != pressure[place - 1] }
            kept = stroke.merge("points" => points.values_at(*places).flatten)
            pressure ? kept.merge("pressure" => pressure.values_at(*places)) : kept
          end

          def read_stroke(stroke)
            return nil unless stroke.is_a?(Hash) && TOOLS.key?(stroke["tool"]) && Sheet::COLOURS.key?(stroke["colour"])

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
                x.is_a?(Integer) && y.is_a?(Integer) && x.between?(0, Sheet::WIDTH) && y.between?(0, Sheet::HEIGHT)
              end
          end
        end
      end
    end
  end
end
