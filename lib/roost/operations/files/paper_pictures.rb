# frozen_string_literal: true

module Roost
  module Operations
    # Pictures for one sheet of paper, as JPEG files in a folder: so many of them and no more. What a class has in common is
    # made once for all.
    class PaperPictures
      MOST = 60
      WIDTH = 1000 # pixels
      @made = Core::LruCache.new(60)

      class << self
        attr_reader :made

        # What draws an answer: given slide and value, SVG, or nil of what is no picture. Set by whoever starts the program, since
        # templates do it, which operations may not name.
        attr_accessor :drawing
      end

      # @param folder [String] where they lie as long as they are needed
      # @param most [Integer] pictures
      def initialize(folder, most: MOST)
        @folder = folder
        @most = most
        @count = 0
      end

      # @param name [String] of a file among the media
      # @return [String, nil] path; nil where it can't be had, or there are enough
      def kept(name) = room { file(PaperPictures.made.fetch(name) { jpeg(name) }) }

      # @param svg [String] of ours
      # @return [String, nil] as #kept
      def drawn(svg) = room { file(of_svg(svg)) }

      # What somebody gave, where that is a picture.
      # @param slide [Core::Slide]
      # @param value [Hash] of an answer to its question
      # @return [String, nil] as #kept
      def answer(slide, value)
        svg = PaperPictures.drawing&.call(slide, value)
        svg && drawn(DrawAnswer.new.call(svg, "svg", picture: (slide.picture if slide.prompt.uses_picture?)).file)
      end

      private

      def room
        yield if (@count += 1) <= @most
      end

      def jpeg(name)
        path, type = Store::Media.new.find(name)
        return nil unless path

        type == "image/svg+xml" ? of_svg(File.read(path)) : smaller(path)
      end

      # @return [String, nil] JPEG
      def of_svg(svg)
        drawn = Exchange::Raster.draw(svg, WIDTH)
        drawn && smaller(file(drawn, "png"))
      end

      def smaller(path) = Exchange::Raster.new(path).within(WIDTH, "jpg")&.first

      # @return [String, nil] path of a file with these bytes
      def file(bytes, extension = "jpg")
        bytes && File.join(@folder, "#{@count}.#{extension}").tap { |path| File.binwrite(path, bytes) }
      end
    end
  end
end
