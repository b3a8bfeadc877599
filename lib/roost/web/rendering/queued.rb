# frozen_string_literal: true

module Roost
  module Web
    # Pictures of a seat: they wait for their turn, so that they never hold up an answer on a slow
    # line (assets/js/seat/pictures.js). Included where students' devices are rendered for.
    module Queued
      def picture_tag(picture, css: nil, alt: picture.alt, **)
        waiting_tag(picture_source(picture), css: css, alt: alt, width: picture.width, height: picture.height)
      end

      # Every picture here comes only when it is about to be seen.
      def img_tag(address, **look) = waiting_tag(source(address), **look.except(:lazy))

      def picture_layer(picture, place) = "<image #{picture_source(picture)} #{place}/>"

      # What a device may fetch while nothing else is going on.
      # @param pictures [Array<Core::Picture>]
      def ahead(pictures) = pictures.map { |picture| "<i data-ahead #{picture_source(picture)}></i>" }.join

      private

      def waiting_tag(source, **look) = "<img #{source} #{attributes(**look)}>"

      def picture_source(picture) = source(media(picture.file), picture.widths)

      def source(address, widths = [])
        waiting = %(data-src="#{Rack::Utils.escape_html(address)}")
        widths.empty? ? waiting : %(#{waiting} data-widths="#{widths.join(" ")}")
      end
    end
  end
end
