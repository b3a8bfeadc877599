# frozen_string_literal: true

require "zip"

module Roost
  module Exchange
    # A zip of pictures, in the order of their names as people number them (2 before 10). Each is unpacked by itself, and
    # never more of it than a picture may have.
    class PictureZip
      MOST = 100
      MOST_BYTES = 10 * 1024 * 1024
      MOST_ENTRIES = 2_000
      NAMES = /\.(?:png|jpe?g|webp|gif|svg|heic|heif|avif)\z/i
      # What some programs put beside every file.
      BESIDE = %r{(?:\A|/)(?:__MACOSX/|\.)}
      MANY = "has too many files in it. Make one of the pictures alone."
      # The end of the list of what a zip holds, which says how many entries there are. Source: APPNOTE.TXT 6.3.10, section
      # 4.3.16.
      END_OF_LIST = "PK\x05\x06".b
      # With both of these it says so elsewhere, in 64 bits; no zip of this size has to.
      IN_64_BITS = ["PK\x06\x06".b, "PK\x06\x07".b].freeze
      LONGEST_END = 22 + 65_535 # bytes, with its comment
      NONE = "has no pictures in it."
      BROKEN = "is damaged or not a zip. Make it again and retry."

      # @param path [String]
      def initialize(path)
        @path = path
      end

      # @return [Core::Reading] of how many pictures there are; refused in words that go on after the file's name
      def pages
        return Core::Reading.refused(MANY) if entries > MOST_ENTRIES

        many = names.length
        return Core::Reading.refused(NONE) if many.zero?
        return Core::Reading.refused("has #{many} pictures; #{MOST} is the most. Split it and add the parts.") if many > MOST

        Core::Reading.ok(many)
      rescue Zip::Error, ArgumentError
        Core::Reading.refused(BROKEN)
      end

      # @param number [Integer] from 1
      # @return [String] its name without folders
      def name(number) = File.basename(names.fetch(number - 1))

      # @return [String, nil] its bytes, one more than allowed where there are more; nil where it can't be unpacked
      def bytes(number)
        Zip::File.open(@path) { |zip| zip.get_entry(names.fetch(number - 1)).get_input_stream.read(MOST_BYTES + 1) }
      rescue Zip::Error, Zlib::Error, ArgumentError
        nil
      end

      private

      # As the end of its list says, before the list is read; 65 535 where there are more than it can say.
      def entries
        File.open(@path, "rb") do |file|
          file.seek(-[LONGEST_END, file.size].min, IO::SEEK_END)
          tail = file.read
          at = tail.rindex(END_OF_LIST) or raise ArgumentError, "no end"
          next MOST_ENTRIES + 1 if IN_64_BITS.all? { |mark| tail.include?(mark) }

          tail.byteslice(at + 10, 2).to_s.unpack1("v") || raise(ArgumentError, "cut off")
        end
      end

      def names
        @names ||= Zip::File.open(@path) do |zip|
          zip.select(&:file?).map(&:name).grep(NAMES).grep_v(BESIDE).sort_by { |name| in_order(name) }
        end
      end

      def in_order(name)
        text = name.dup.force_encoding(Encoding::UTF_8).scrub.downcase
        text.scan(/\d+|\D+/).map { |part| part.match?(/\A\d/) ? [0, part.to_i, part] : [1, 0, part] }
      end
    end
  end
end
