# frozen_string_literal: true

module Roost
  module Web
    # The Desk: the teacher's private control view of a live session.
    class Desk < TeacherApp
      include Brief

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
                                 "opacity", "page", "seats")
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
    end
  end
end
