# frozen_string_literal: true

module Roost
  module Web
    # Learning standards: a teacher's own list from a sheet, and finding them while tagging.
    class Standards < TeacherApp
      helpers LessonPages

      get "/" do
        page("standards/index", title: "Learning standards", standards: standards.all(account_id))
      end

      post "/" do
        file = uploads("sheet").first
        name = File.basename(file[:filename].to_s)[0, 80]
        found = Operations::KeepStandards.new.call(account_id, file[:tempfile].path, for_all: params["for_all"] == "1",
                                                                                               name: name)
        halt refuse("“#{name}” #{found.reason}") unless found.ok?
        page("standards/kept", title: "Learning standards", found: found.value, name: name)
      end

      # What fits what is being typed, as buttons.
      get("/search") { partial("standards/found", found: standards.find(account_id, params["q"])) }

      post "/remove" do
        Operations::RemoveStandards.new.call(account_id)
        redirect "/standards", 303
      end

      helpers do
        def standards = Store::Standards.new
      end
    end
  end
end
