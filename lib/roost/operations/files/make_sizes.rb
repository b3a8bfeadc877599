# frozen_string_literal: true

module Roost
  module Operations
    # Makes a picture in the widths in which devices get it, once: when it is kept, and of one kept
    # before there were widths, when it is first asked for.
    class MakeSizes
      HIGHEST = 10_000 # pixels

      # @param picture [Core::Picture] that is kept
      # @param widths [Array<Integer>] pixels, some of the picture's own
      def call(picture, widths = picture.widths)
        media = Store::Media.new
        path, = media.find(picture.file)
        return unless path

        widths.reject { |width| media.size(picture.file, width) }.each do |width|
          webp, = Exchange::Raster.new(path).within(width, "webp", height: HIGHEST)
          media.keep_size(picture.file, width, webp) if webp
        end
      rescue Errno::ENOSPC, Errno::EFBIG, Errno::EDQUOT
        nil # the picture itself is there, and is sent instead
      end
    end
  end
end
