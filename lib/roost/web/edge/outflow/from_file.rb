# frozen_string_literal: true

module Roost
  module Web
    class Outflow
      # An answer that is a file or a range of one, read as it is taken.
      class FromFile
        CHUNK = 64 * 1024 # bytes

        # @return [Integer] bytes
        attr_reader :size

        # @param body [Rack::Files::BaseIterator] with one range
        def initialize(body)
          range = body.ranges.first
          @file = File.open(body.path, "rb")
          @file.seek(range.begin)
          @left = @size = range.size
          body.close if body.respond_to?(:close)
        end

        # @return [String, nil] the next; nil after the last
        def part
          bytes = @file.read([CHUNK, @left].min) if @left.positive?
          @left -= bytes.bytesize if bytes
          bytes
        end

        def held = CHUNK

        def close = @file.close
      end
    end
  end
end
