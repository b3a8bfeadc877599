# frozen_string_literal: true

module Roost
  module Core
    # The picture on a slide: which stored file, its size in pixels, and what it
    # shows in words.
    Picture = Struct.new(:file, :width, :height, :alt, keyword_init: true) do
      def self.from_document(document)
        document && new(file: document.fetch("file"), width: document.fetch("width"),
                        height: document.fetch("height"), alt: document.fetch("alt", "")).freeze
      end

      def to_document = { "file" => file, "width" => width, "height" => height, "alt" => alt }
    end
  end
end
