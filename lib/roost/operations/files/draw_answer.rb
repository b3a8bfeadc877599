# frozen_string_literal: true

module Roost
  module Operations
    # One answer as a picture file of its own, for kinds whose answers are pictures: what lies
    # under it is put inside, so that the file needs nothing else.
    class DrawAnswer
      # file:: [String] bytes; type:: media type
      Drawn = Struct.new(:file, :type, keyword_init: true)
      TYPES = { "svg" => "image/svg+xml", "png" => "image/png" }.freeze
      WIDTH = 1200 # pixels

      # @param svg [String] of the answer alone
      # @param format [String] a key of TYPES
      # @param picture [Core::Picture, nil] what it lies on
      # @return [Drawn, nil] nil when it can't be drawn
      def call(svg, format, picture: nil)
        whole = picture ? svg.sub(%(href="/media/#{picture.file}")) { %(href="#{inside(picture)}") } : svg
        file = format == "png" ? Exchange::Raster.draw(whole, WIDTH) : whole
        file && Drawn.new(file: file, type: TYPES.fetch(format)).freeze
      end

      private

      def inside(picture)
        path, type = Store::Media.new.find(picture.file)
        path ? "data:#{type};base64,#{[File.binread(path)].pack("m0")}" : "data:,"
      end
    end
  end
end
