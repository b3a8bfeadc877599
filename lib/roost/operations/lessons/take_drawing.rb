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

        Core::Reading.ok(keep(account_id, Store::PictureLibrary.path(drawing)).described(drawing.title))
      end

      # @param path [String] of a drawing that ships with the program
      # @return [Core::Picture]
      def keep(account_id, path)
        cleaned = Exchange::Drawing.ours(path)
        Store::Media.new.keep_picture(cleaned.svg, extension: "svg", account_id: account_id, width: cleaned.width,
                                                   height: cleaned.height)
      end
    end
  end
end
