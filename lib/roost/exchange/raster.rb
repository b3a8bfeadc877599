# frozen_string_literal: true

require "tmpdir"

module Roost
  module Exchange
    # A picture of pixels from outside, looked at and made smaller by libvips' own programs, one
    # at a time in a process of this one. What an SVG of ours looks like is drawn by librsvg's.
    class Raster
      TYPES = { "png" => "image/png", "jpg" => "image/jpeg", "webp" => "image/webp" }.freeze
      QUALITY = { "png" => "strip", "jpg" => "strip,Q=85,background=255", "webp" => "strip,Q=75" }.freeze
      # Loaders that libvips' makers don't vouch for stay out.
      ENVIRONMENT = { "VIPS_BLOCK_UNTRUSTED" => "1", "VIPS_CONCURRENCY" => "1" }.freeze
      LIMITS = { seconds: 20, memory: 1536 * 1024 * 1024, output: 1024 * 1024, environment: ENVIRONMENT }.freeze

      # pages:: how many pictures it is made of, when it moves
      Header = Struct.new(:width, :height, :alpha, :pages, keyword_init: true) do
        def pixels = width * height
      end

      @turn = Mutex.new

      class << self
        # Runs a program while no other of these runs.
        def alone(*command, **limits) = @turn.synchronize { Confined.run(*command, **LIMITS, **limits) }

        # @param svg [String] of ours
        # @param width [Integer] pixels
        # @return [String, nil] as PNG
        def draw(svg, width)
          Dir.mktmpdir do |folder|
            path = File.join(folder, "drawing.svg")
            File.write(path, svg)
            drawn = alone("rsvg-convert", "--unlimited", "-w", width.to_s, path, output: Confined::OUTPUT)
            drawn.output if drawn.success
          end
        end
      end

      # @param path [String]
      def initialize(path)
        @path = path
      end

      # @return [Header, nil] nil of what is no picture
      def header
        told = Raster.alone("vipsheader", "-a", path)
        return nil unless told.success

        fields = told.output.force_encoding(Encoding::UTF_8).scrub.scan(/^(width|height|bands|n-pages): (\d+)/).to_h
        width, height, bands = fields.values_at("width", "height", "bands").map(&:to_i)
        pages = fields.fetch("n-pages", 1).to_i
        return nil unless [width, height, bands].all?(&:positive?)

        Header.new(width: width, height: height, alpha: bands.even?, pages: pages).freeze
      end

      # The picture upright and no larger than a square, or than a width, in another format.
      # @param side [Integer] pixels
      # @param height [Integer] pixels, where it may be higher than wide
      # @param format [String] a key of TYPES
      # @return [Array(String, Integer, Integer), nil] bytes, width and height; nil when it is damaged
      def within(side, format, height: side)
        Dir.mktmpdir do |folder|
          made = File.join(folder, "made.#{format}")
          done = Raster.alone("vips", "thumbnail", path, "#{made}[#{QUALITY.fetch(format)}]", side.to_s, "--height", height.to_s,
                              "--size", "down", "--fail-on", "truncated")
          head = done.success && Raster.new(made).header
          head ? [File.binread(made), head.width, head.height] : nil
        end
      end

      private

      attr_reader :path
    end
  end
end
