# frozen_string_literal: true

module Roost
  module Operations
    # Takes a drawing of the picture library, to be put on a slide.
    class TakeDrawing
      GONE = "That drawing isn't in the library. Choose another."

      # @param name [String]
      # @return [Core::Reading] of a Core::Picture that says what it shows
      def call(account_id, name)
        drawing = Store::PictureLibrary.drawing(name)
        return Core::Reading.refused(GONE) unless drawing

        cleaned = Exchange::Drawing.ours(Store::PictureLibrary.path(drawing))
        picture = Store::Media.new.keep_picture(cleaned.svg, extension: "svg", account_id: account_id, width: cleaned.width,
                                                             height: cleaned.height)
        Core::Reading.ok(picture.described(drawing.title))
      end
    end
  end
end
