# frozen_string_literal: true

module Roost
  module Web
    # A lesson as students and the class screen will get it, in frames of a phone, a laptop
    # and a screen. The real seat: it can be answered, and nothing is recorded.
    class Preview < TeacherApp
      helpers LessonPages

      FRAMED = { "content-security-policy" => Application::POLICY.sub("frame-ancestors 'none'", "frame-ancestors 'self'"),
                 "x-frame-options" => "SAMEORIGIN" }.freeze

      get "/:id/preview" do
        row = looked_at
        slides = row.lesson.class_slides
        slide = slides.find { |each| each.id == params["slide"] } || slides.first
        page("preview/show", title: "Preview of #{row.lesson.title}", layout: "layouts/builder", row: row, slide: slide,
                             edits: entry.role != :view)
      end

      # What the lesson is at: the page shows anew when it changes in another window.
      get "/:id/preview/version" do
        content_type "text/plain"
        looked_at.revision.to_s
      end

      get "/:id/preview/seat" do
        headers FRAMED
        view = Core::Session::Views.seats(moment, [Core::Session::Preview::SEAT]).keys.first
        page("preview/seat", title: "Seat", layout: "layouts/plain", bundle: "seat", theme: view.theme, view: view, now: 0.0,
                             kinds: "/lessons/#{number("id")}/preview/kinds")
      end

      FORM = "/:id/preview"
      extend Kinds::Routes

      get "/:id/preview/screen" do
        headers FRAMED
        view = Core::Session::Views.screen(moment)
        page("preview/screen", title: "Class screen", layout: "layouts/plain", bundle: "screen", theme: view.theme, view: view,
                               now: 0.0)
      end

      helpers do
        def asked(_id) = [looked_at.lesson.slide(params["slide"].to_s)&.prompt || not_found, Core::Session::ItemIds::PLAIN]

        def moment = Core::Session::Preview.of(looked_at.lesson, params["slide"].to_s, told: params["told"] == "1")
      end
    end
  end
end
