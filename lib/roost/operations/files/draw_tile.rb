# frozen_string_literal: true

require "digest"
require "fileutils"

module Roost
  module Operations
    # A drawing as a small picture of pixels, however many strokes it has: drawn once, kept under
    # var/tiles by what it shows. The folder holds so many; what is gone is drawn again.
    class DrawTile
      DAYS = 2 # a tile is kept after it was made
      MOST = 5_000
      # So often it is looked at how many there are: once in this many new ones.
      LOOK = 100

      # @param svg [String]
      # @param width [Integer] pixels
      # @param turns [SizedQueue] how many may wait here at a time
      # @return [String, nil] PNG; nil when there was no turn, or it can't be drawn
      def call(svg, width, turns:)
        path = Roost.settings.var("tiles", "#{Digest::SHA256.hexdigest("#{width} #{svg}")}.png")
        return File.binread(path) if File.exist?(path)

        ConcurrencyLimit.take(turns) { Exchange::Raster.draw(svg, width) }&.tap { |png| keep(path, png) }
      end

      # Deletes tiles that were made long ago, and the oldest where there are more than MOST.
      # @return [Integer] how many
      def self.forget_old(most: MOST)
        tiles = Dir[Roost.settings.var("tiles", "*")].to_h { |path| [path, File.mtime(path)] }.sort_by(&:last)
        old = tiles.take_while { |_, made| made < Time.now - (DAYS * 86_400) } | tiles.first([tiles.length - most, 0].max)
        FileUtils.rm_f(old.map(&:first)).length
      rescue Errno::ENOENT
        0 # another process was at it; it is looked at again
      end

      private

      def keep(path, png)
        draft = "#{path}.#{Process.pid}.#{Thread.current.object_id}"
        File.binwrite(draft, png)
        File.rename(draft, path)
        DrawTile.forget_old if rand(LOOK).zero?
      rescue SystemCallError
        FileUtils.rm_f(draft) # a full disk costs drawing it again
      end
    end
  end
end
