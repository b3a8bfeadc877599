# frozen_string_literal: true

module Roost
  module Web
    # The picture library that ships with the program: finding drawings, and their files.
    class Library < TeacherApp
      get "/" do
        partial("library/found", found: Store::PictureLibrary.find(params["q"]))
      end

      get "/:name.svg" do |name|
        drawing = Store::PictureLibrary.drawing(name) || not_found
        cache_control :private, max_age: 3600
        send_file Store::PictureLibrary.path(drawing), type: "image/svg+xml", disposition: "inline"
      end
    end
  end
end
