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
        found = Exchange::StandardsSheet.read(file[:tempfile].path)
        halt refuse("“#{name}” #{found.reason}") unless found.ok?
        halt refuse("“#{name}” has no standard that can be used.") if found.value.standards.empty?

        standards.keep(account_id, found.value.standards, for_all: params["for_all"] == "1")
        page("standards/kept", title: "Learning standards", found: found.value, name: name)
      end

      # What fits what is being typed, as buttons.
      get("/search") { partial("standards/found", found: standards.find(account_id, params["q"])) }

      post "/remove" do
        standards.remove_all(account_id)
        redirect "/standards", 303
      end

      helpers do
        def standards = Store::Standards.new
      end
    end
  end
end
