# frozen_string_literal: true

module Roost
  module Web
    # The Desk: the teacher's private control view of a live session.
    class Desk < TeacherApp
      get "/:id" do |id|
        record = own_session(id)
        snapshot = Store::Rooms.new.snapshot(record)
        page("desk/show", title: "#{record.title} · Desk", layout: "layouts/desk", record: record, now: record.now,
                          view: Core::Room::Views.desk(snapshot))
      end

      get("/:id/screen") { |id| redirect "/screen/#{own_session(id).screen_key}" }

      # Commands answer with the refusal, or nothing: what they did comes by the stream.
      post "/:id/commands" do |id|
        record = own_session(id)
        arguments = params.slice("from", "slide", "seconds", "what", "seat", "named", "beside", "cards", "column", "way",
                                 "opacity", "page")
        granted(Operations::CommandSession.new.call(record.id, params["command"].to_s, arguments, account_id: account_id))
        htmx? ? 204 : redirect("/desk/#{record.id}", 303)
      end

      post "/:id/ask" do |id|
        record = own_session(id)
        granted(Operations::AskNow.new.call(record.id, params["words"].to_s, params["heading"],
                                            from: params["from"], account_id: account_id))
        htmx? ? 204 : redirect("/desk/#{record.id}", 303)
      end

      post "/:id/practice" do |id|
        record = own_session(id)
        granted(Operations::PracticeClass.new.invite(record, number("count")))
        htmx? ? 204 : redirect("/desk/#{record.id}", 303)
      end

      # One seat's answer as a picture. The address carries a version, so it can be kept for good.
      get "/:id/answers/:slide/:seat.svg" do |id, slide_id, seat_id|
        record = own_session(id)
        svg = answer_svg(record, Store::Sessions.new.lesson(record.id).slide(slide_id), seat_id.to_i)
        content_type "image/svg+xml"
        cache_control :private, :immutable, max_age: 86_400
        svg
      end
    end
  end
end
