# frozen_string_literal: true

require "json"
require "tempfile"

module Roost
  module Exchange
    # An SVG drawing from outside, cleaned in a process of its own (drawing/cleaner.rb); pictures of
    # pixels inside it are encoded anew, as those that come alone are.
    module Drawing
      SLOW = "is too much to be read. Make it simpler, or export it as PNG."
      UNREADABLE = "pictures that can't be read"
      # Pixels across of a picture inside.
      WIDEST = 1600
      MOST_PIXELS = 60_000_000

      # svg:: [String]; width, height:: of its view box; lost:: [String] what could not be kept
      Cleaned = Struct.new(:svg, :width, :height, :lost, keyword_init: true)

      # @param path [String] of a file from outside
      # @return [Core::Reading] of Cleaned; refused in words that go on after the file's name
      def self.read(path)
        done = Confined.read("drawing", path)
        done.success ? Core::Reading.ok(whole(done.output)) : Core::Reading.refused(done.refusal || SLOW)
      end

      # A drawing that ships with the program: made the same, and here.
      # @return [Cleaned]
      def self.ours(path) = whole(Cleaner.clean(File.binread(path)))

      # @param output [String] of Cleaner
      # @return [Cleaned]
      def self.whole(output)
        said, svg = output.force_encoding(Encoding::UTF_8).split("\n", 2)
        said = JSON.parse(said)
        pictures = said["pictures"].map { |bytes| encoded(bytes.unpack1("m")) }
        lost = said["lost"] + (pictures.all? ? [] : [UNREADABLE])
        full = svg.gsub(/"#{said["place"]}(\d+)"/) { %("#{pictures[Regexp.last_match(1).to_i] || "data:,"}") }
        Cleaned.new(svg: full, width: said["width"], height: said["height"], lost: lost).freeze
      end

      # @return [String, nil] as a data address
      def self.encoded(bytes)
        Tempfile.create("inside", binmode: true) do |file|
          file.write(bytes)
          file.flush
          raster = Raster.new(file.path)
          header = raster.header
          next nil if header.nil? || header.pixels > MOST_PIXELS

          format = header.alpha ? "png" : "jpg"
          made, = raster.within(WIDEST, format)
          made && "data:#{Raster::TYPES.fetch(format)};base64,#{[made].pack("m0")}"
        end
      end
      private_class_method :whole, :encoded
    end
  end
end
