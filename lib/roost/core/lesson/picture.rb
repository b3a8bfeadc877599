# frozen_string_literal: true

module Roost
  module Core
    # A picture on a slide: which stored file, its size in pixels, and what it shows in
    # words. For a page of a PDF the words are the page's own text.
    Picture = Struct.new(:file, :width, :height, :alt, keyword_init: true) do
      self::ALT_LIMIT = 2000
      # What the file of a photograph is called: by what is in it.
      self::FILE = /\A\h{64}\.(?:png|jpg)\z/
      # In how many pixels across it is sent to devices, where it is a photograph.
      self::WIDTHS = [480, 960, 1600].freeze

      def self.from_document(document)
        document && new(file: document.fetch("file"), width: document.fetch("width"),
                        height: document.fetch("height"), alt: document.fetch("alt", "")).freeze
      end

      # The widths in pixels in which it can be had, smallest first: none of a drawing, which has no size.
      # @return [Array<Integer>]
      def widths
        return [] unless file.match?(self.class::FILE)

        self.class::WIDTHS.select { |each| each < width } + (width <= self.class::WIDTHS.last ? [width] : [])
      end

      def described(alt) = self.class.new(**to_h, alt: alt).freeze

      def to_document = { "file" => file, "width" => width, "height" => height, "alt" => alt }
    end
  end
end
