# frozen_string_literal: true

require "marcel"
require "tempfile"

module Roost
  module Operations
    # Takes in a picture that a teacher uploaded: sniffed by its content, at most 10 MB,
    # re-encoded (photographs by libvips, SVG cleaned, each in a process of its own), kept by
    # content.
    class KeepPicture
      MOST_BYTES = 10 * 1024 * 1024
      MOST_PIXELS = 60_000_000
      LARGEST_SIDE = 2000
      PHOTOGRAPHS = %w[image/png image/jpeg image/webp image/gif image/heic image/heif image/avif].freeze
      NO_PHOTOGRAPH = "is not a photograph. Use PNG, JPEG, WebP, HEIC or GIF."
      MANY_PIXELS = "has too many pixels. Make it smaller and try again."
      MOVES = "moves; here it is kept as a still picture. As a video it would move."
      LOST = "is kept without what can't be shown here: %s."
      DAMAGED = "is damaged or not a picture. Export it again and retry."

      # What there is to say of the picture that was kept last, in one sentence.
      # @return [String, nil]
      attr_reader :remark

      # @param io [IO] of the upload
      # @param name [String] the file's name, only for the refusal
      # @param drawings [Boolean] whether SVG is taken
      # @param pixels [Integer] most of them
      # @param seat_id [Integer, nil] of the seat that sent it; nil when a teacher did
      # @return [Core::Reading] of a Core::Picture
      def call(account_id, io, name, drawings: true, pixels: MOST_PIXELS, seat_id: nil)
        bytes = io.read(MOST_BYTES + 1) || ""
        return refuse(name, "is larger than 10 MB. Make it smaller and try again.") if bytes.bytesize > MOST_BYTES

        type = Marcel::MimeType.for(StringIO.new(bytes))
        return refuse(name, NO_PHOTOGRAPH) unless drawings || PHOTOGRAPHS.include?(type)

        kept = Tempfile.create("picture", binmode: true) do |file|
          file.write(bytes)
          file.flush
          keep(file.path, type, pixels, account_id: account_id, seat_id: seat_id)
        end
        @remark &&= about(name, @remark)
        kept.ok? ? kept : refuse(name, kept.reason)
      rescue Errno::ENOSPC, Errno::EFBIG, Errno::EDQUOT
        refuse(name, "can't be stored: the disk is full. The slide is as it was; tell whoever runs this server.")
      end

      private

      def refuse(name, why) = Core::Reading.refused(about(name, why))

      def about(name, words) = "“#{File.basename(name.to_s)[0, 60]}” #{words}"

      def keep(path, type, pixels, **from)
        case type
        when "image/svg+xml", "application/xml" then keep_drawing(path, from)
        when *PHOTOGRAPHS then keep_raster(Exchange::Raster.new(path), pixels, from)
        else Core::Reading.refused("is not a picture we can show. Use PNG, JPEG, WebP, HEIC, GIF or SVG.")
        end
      end

      def keep_raster(raster, pixels, from)
        header = raster.header
        return Core::Reading.refused(DAMAGED) unless header
        return Core::Reading.refused(MANY_PIXELS) if header.pixels > pixels

        @remark = MOVES if header.pages > 1
        extension = header.alpha ? "png" : "jpg"
        encoded, width, height = raster.within(LARGEST_SIDE, extension)
        return Core::Reading.refused(DAMAGED) unless encoded

        picture = Store::Media.new.keep_picture(encoded, extension: extension, width: width, height: height, **from)
        MakeSizes.new.call(picture)
        Core::Reading.ok(picture)
      end

      def keep_drawing(path, from)
        Exchange::Drawing.read(path).map do |drawing|
          @remark = format(LOST, drawing.lost.join(", ")) if drawing.lost.any?
          Store::Media.new.keep_picture(drawing.svg, extension: "svg", width: drawing.width, height: drawing.height,
                                                     **from)
        end
      end
    end
  end
end
