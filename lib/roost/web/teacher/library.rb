# frozen_string_literal: true

module Roost
  module Web
    # The picture library that ships with the program: finding drawings, and their files.
    class Library < TeacherApp
      helpers LessonPages

      NONE = "Choose a file first."

      get "/" do
        partial("library/found", found: Store::PictureLibrary.find(params["q"]))
      end

      # Takes in one picture for a form that is sent afterwards; says what it is called, or why not.
      post "/hold" do
        file = params["picture"]
        keeping = Operations::KeepPicture.new
        kept = file.is_a?(Hash) ? keeping.call(account_id, file[:tempfile], file[:filename]) : Core::Reading.refused(NONE)
        content_type :json
        status 422 unless kept.ok?
        JSON.generate(kept.ok? ? { file: kept.value.file, remark: keeping.remark }.compact : { message: kept.reason })
      end

      get "/:name.svg" do |name|
        drawing = Store::PictureLibrary.drawing(name) || not_found
        cache_control :private, max_age: 3600
        send_file Store::PictureLibrary.path(drawing), type: "image/svg+xml", disposition: "inline"
      end
    end
  end
end
