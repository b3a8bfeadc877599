# frozen_string_literal: true

require "vips"

module Roost
  module Operations
    # One answer as a picture file of its own, for kinds whose answers are pictures: what lies
    # under it is put inside, so that the file needs nothing else.
    class DrawAnswer
      # file:: [String] bytes; type:: media type
      Drawn = Struct.new(:file, :type, keyword_init: true)
      TYPES = { "svg" => "image/svg+xml", "png" => "image/png" }.freeze

      # @param svg [String] of the answer alone
      # @param format [String] a key of TYPES
      # @param picture [Core::Picture, nil] what it lies on
      # @return [Drawn]
      def call(svg, format, picture: nil)
        whole = picture ? svg.sub(%(href="/media/#{picture.file}")) { %(href="#{inside(picture)}") } : svg
        file = format == "png" ? Vips::Image.new_from_buffer(whole, "").write_to_buffer(".png") : whole
        Drawn.new(file: file, type: TYPES.fetch(format)).freeze
      end

      private

      def inside(picture)
        path, type = Store::Media.new.find(picture.file)
        path ? "data:#{type};base64,#{[File.binread(path)].pack("m0")}" : "data:,"
      end
    end
  end
end
