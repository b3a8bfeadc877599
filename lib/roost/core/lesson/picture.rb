# frozen_string_literal: true

module Roost
  module Core
    # A picture on a slide: which stored file, its size in pixels, and what it shows in
    # words. For a page of a PDF the words are the page's own text.
    Picture = Struct.new(:file, :width, :height, :alt, keyword_init: true) do
      self::ALT_LIMIT = 2000
      # What the file of a photograph is called: by what is in it.
      self::FILE = /\A\h{64}\.(?:png|jpg)\z/

      def self.from_document(document)
        document && new(file: document.fetch("file"), width: document.fetch("width"),
                        height: document.fetch("height"), alt: document.fetch("alt", "")).freeze
      end

      def described(alt) = self.class.new(**to_h, alt: alt).freeze

      def to_document = { "file" => file, "width" => width, "height" => height, "alt" => alt }
    end
  end
end
