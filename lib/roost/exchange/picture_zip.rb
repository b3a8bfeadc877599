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
      NONE = "has no pictures in it."
      BROKEN = "is damaged or not a zip. Make it again and retry."

      # @param path [String]
      def initialize(path)
        @path = path
      end

      # @return [Core::Reading] of how many pictures there are; refused in words that go on after the file's name
      def pages
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

      def names
        @names ||= Zip::File.open(@path) do |zip|
          raise ArgumentError, "too many entries" if zip.size > MOST_ENTRIES

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
