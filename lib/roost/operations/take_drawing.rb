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

        File.open(Store::PictureLibrary.path(drawing), "rb") do |file|
          KeepPicture.new.call(account_id, file, drawing.name).map { |picture| picture.described(drawing.title) }
        end
      end
    end
  end
end
