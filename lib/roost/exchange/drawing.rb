# frozen_string_literal: true

module Roost
  module Exchange
    # An SVG drawing from outside, cleaned in a process of its own (drawing/cleaner.rb).
    module Drawing
      SLOW = "is too much to be read. Make it simpler, or export it as PNG."

      # svg:: [String]; width, height:: of its view box
      Cleaned = Struct.new(:svg, :width, :height, keyword_init: true)

      # @param path [String] of a file from outside
      # @return [Core::Reading] of Cleaned; refused in words that go on after the file's name
      def self.read(path)
        done = Confined.read("drawing", path)
        return Core::Reading.refused(done.refusal || SLOW) unless done.success

        width, height, svg = done.output.force_encoding(Encoding::UTF_8).split("\n", 3)
        Core::Reading.ok(Cleaned.new(svg: svg, width: width.to_i, height: height.to_i).freeze)
      end
    end
  end
end
