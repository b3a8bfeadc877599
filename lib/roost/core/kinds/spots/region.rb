# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # A part of the picture in which spots are right: a circle, a rectangle or a polygon,
        # in fractions of the picture's width and height, so that it is the same at any size.
        # (What is a circle on the screen has two radii in fractions.)
        #
        # wanted:: how many spots belong in it
        # numbers:: circle: x, y, rx, ry; rectangle: left, top, right, bottom; polygon: x, y, …
        Region = Struct.new(:id, :shape, :numbers, :wanted, :name, keyword_init: true) do
          self::SHAPES = %w[circle rectangle polygon].freeze
          self::WANTED = (1..10)
          self::CORNERS = (3..24)
          self::NAME_LIMIT = 40
          self::WORDS = /\A(?<shape>circle|rectangle|polygon)(?<numbers>(?:\s\d*\.?\d+)+)(?:\sx(?<wanted>\d+))?
                         (?:\s(?:"(?<name>.*)"|(?<plain>.+)))?\z/ix

          # @param raw anything: a region as #to_document writes it
          # @return [Region, nil] nil when it is none
          def self.read(raw)
            return nil unless raw.is_a?(Hash) && self::SHAPES.include?(raw["shape"])

            numbers = raw["numbers"]
            wanted = raw.fetch("wanted", 1)
            return nil unless numbers?(raw["shape"], numbers) && wanted.is_a?(Integer) && self::WANTED.cover?(wanted)

            name = Text.read(raw["name"], limit: self::NAME_LIMIT, what: "The name", lines: false)
            return nil unless name.ok? && raw["id"].to_s.match?(/\A\w{1,12}\z/)

            new(id: raw["id"].to_s, shape: raw["shape"], numbers: numbers.map { |number| number.to_f.round(4) }.freeze,
                wanted: wanted, name: name.value.tr(";", ",")).freeze
          end

          # @param words [String] as #in_words writes it
          # @return [Region, nil]
          def self.from_words(words, id)
            found = words.strip.match(self::WORDS)
            found && read("id" => id, "shape" => found[:shape].downcase, "numbers" => found[:numbers].split.map(&:to_f),
                          "wanted" => (found[:wanted] || 1).to_i, "name" => (found[:name] || found[:plain]).to_s)
          end

          def self.numbers?(shape, numbers)
            return false unless numbers.is_a?(Array) && numbers.all? { |each| each.is_a?(Numeric) && each.between?(0, 1) }
            return numbers.length.even? && self::CORNERS.cover?(numbers.length / 2) if shape == "polygon"
            return false unless numbers.length == 4

            shape == "circle" ? numbers[2..].all?(&:positive?) : numbers[0] < numbers[2] && numbers[1] < numbers[3]
          end
          private_class_method :numbers?

          # @param x [Float], y [Float] fractions of the picture
          def cover?(x, y)
            case shape
            when "circle" then (((x - numbers[0]) / numbers[2])**2) + (((y - numbers[1]) / numbers[3])**2) <= 1
            when "rectangle" then x.between?(numbers[0], numbers[2]) && y.between?(numbers[1], numbers[3])
            else inside_polygon?(x, y)
            end
          end

          # A point inside it, for labels and simulated students.
          # @return [Array(Float, Float)]
          def middle
            return numbers.first(2) if shape == "circle"

            xs, ys = numbers.each_slice(2).to_a.transpose
            [xs.sum / xs.length, ys.sum / ys.length]
          end

          # As it stands in a sheet of questions.
          def in_words = [shape, *numbers, ("x#{wanted}" if wanted > 1), (%("#{name}") unless name.empty?)].compact.join(" ")

          def to_document = to_h.transform_keys(&:to_s)

          private

          # Even–odd rule: a ray to the right crosses the outline an odd number of times.
          def inside_polygon?(x, y)
            corners = numbers.each_slice(2).to_a
            corners.each_index.count do |place|
              (x1, y1) = corners[place - 1]
              (x2, y2) = corners[place]
              (y1 > y) != (y2 > y) && x < ((x2 - x1) * (y - y1) / (y2 - y1)) + x1
            end.odd?
          end
        end
      end
    end
  end
end
