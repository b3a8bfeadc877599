# frozen_string_literal: true

module Roost
  module Web
    class Outflow
      # An answer that is in memory.
      class Held
        # @return [Array<String>]
        attr_reader :parts

        # @return [Integer] bytes
        attr_reader :size

        # @param body [#each] that of a Rack answer
        def initialize(body)
          @parts = []
          body.each { |part| @parts << part }
          body.close if body.respond_to?(:close)
          @size = @parts.sum(&:bytesize)
          @next = -1
        end

        # @return [String, nil] the next; nil after the last
        def part = @parts[@next += 1]

        def held = @size

        def close = @parts = []
      end
    end
  end
end
