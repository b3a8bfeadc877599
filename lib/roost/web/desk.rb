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
                                 "opacity")
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

      # One seat's answer as a picture, for kinds that are pictures.
      get "/:id/answers/:slide/:seat.svg" do |id, slide_id, seat_id|
        drawing(own_session(id), slide_id, seat_id.to_i)
      end

      helpers do
        # Kinds whose answers are pictures have a template for it. The address carries a
        # version, so a picture can be kept for good.
        def drawing(record, slide_id, seat_id)
          prompt = Store::Sessions.new.lesson(record.id).slide(slide_id)&.prompt
          value = prompt && Store::Answers.new.value(record.id, slide_id, seat_id)
          template = prompt && "prompts/#{prompt.kind}/picture"
          not_found unless value && Roost::Web::Rendering.template?(template)

          content_type "image/svg+xml"
          cache_control :private, :immutable, max_age: 86_400
          partial(template, prompt: prompt, value: value, picture: nil)
        end
      end
    end
  end
end
