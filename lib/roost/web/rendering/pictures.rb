# frozen_string_literal: true

module Roost
  module Web
    # Pictures in a page: a photograph in the widths it comes in, of which the browser takes what it
    # needs; a drawing as it is. Always with its size, so that nothing moves when it has come.
    module Pictures
      # How wide a picture is shown, as the browser is told (CSS pixels).
      SHOWN = { slide: "(min-width: 900px) 50vw, 100vw", option: "(min-width: 900px) 320px, 50vw", thumb: "160px",
                whole: "100vw" }.freeze

      # @param picture [Core::Picture]
      # @param shown [Symbol] a key of SHOWN
      # @param css [String, nil] class of the img
      # @param lazy [Boolean] whether it is fetched only when it is about to be seen
      # @return [String] HTML
      def picture_tag(picture, shown:, css: nil, alt: picture.alt, lazy: false)
        img = img_tag(media(picture.file), css: css, alt: alt, width: picture.width, height: picture.height, lazy: lazy)
        return img if picture.widths.empty?

        sizes = picture.widths.map { |width| "#{media_sized(picture, width)} #{width}w" }.join(", ")
        %(<picture><source type="image/webp" srcset="#{sizes}" sizes="#{SHOWN.fetch(shown)}">#{img}</picture>)
      end

      # A picture of one size: what was given by students.
      # @param address [String]
      # @param look [Hash] :css, :alt, and :width and :height in pixels, or what has their proportion
      def img_tag(address, lazy: false, **look)
        %(<img src="#{Rack::Utils.escape_html(address)}" #{attributes(**look)}#{' loading="lazy"' if lazy}>)
      end

      # A picture that lies under something drawn, as a part of an SVG.
      # @param place [String] attributes that say where
      def picture_layer(picture, place) = %(<image href="#{media(picture.file)}" #{place}/>)

      # What a page may fetch before it is needed: nothing, but at a seat (Queued).
      def ahead(_pictures) = ""

      def media(file) = "/media/#{file}"

      # @param width [Integer] one of the picture's own
      def media_sized(picture, width) = "#{media(picture.file)}.#{width}.webp"

      private

      def attributes(css: nil, **others)
        { class: css, **others }.compact.map { |name, value| %(#{name}="#{Rack::Utils.escape_html(value.to_s)}") }.join(" ")
      end
    end
  end
end
