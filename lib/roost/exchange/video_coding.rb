# frozen_string_literal: true

module Roost
  module Exchange
    # How a video is coded, as far as it decides whether browsers play it: read from its boxes (ISO/IEC 14496-12) or its
    # first element (Matroska), never from its name.
    module VideoCoding
      HEVC = /hvc1|hev1/n
      MOST_MOOV = 16 * 1024 * 1024
      MOST_BOXES = 200

      # Whether an MP4 is coded as H.265, which many browsers do not play.
      # @param io [IO] at any place; rewound
      def self.hevc?(io)
        io.rewind
        moov = box(io, "moov")
        !moov.nil? && moov.match?(HEVC)
      ensure
        io.rewind
      end

      # Whether an EBML file says that it is WebM, and not Matroska at large.
      def self.webm?(io)
        io.rewind
        io.read(128).to_s.b.match?(/\x42\x82.webm/n)
      ensure
        io.rewind
      end

      # @return [String, nil] what is in the first box of a kind on the outermost level
      def self.box(io, wanted)
        MOST_BOXES.times do
          header = io.read(8)
          return nil unless header&.bytesize == 8

          size, kind = header.unpack("Na4")
          head = 8
          if size == 1
            size = io.read(8).to_s.unpack1("Q>")
            head = 16
          end
          return nil if size.nil? || (size != 0 && size < head)
          return io.read([size.zero? ? MOST_MOOV : size - head, MOST_MOOV].min).to_s.b if kind == wanted
          return nil if size.zero?

          io.seek(size - head, IO::SEEK_CUR)
        end
        nil
      end
      private_class_method :box
    end
  end
end
