# frozen_string_literal: true

require "securerandom"

module Roost
  module Web
    # Preparing: the list of lessons, and the builder, which saves as the teacher goes.
    class Lessons < TeacherApp
      get "/" do
        page("lessons/index", title: "Lessons", lessons: lessons.of(account_id), deleted: deleted_lesson,
                              deleted_lately: lessons.deleted_lately(account_id),
                              running: Store::Sessions.new.all_of(account_id).reject(&:ended_at))
      end

      post "/" do
        title = granted(Core::Lesson.read_title(params["title"]))
        id = lessons.create(account_id, Core::Lesson.new(title: title, slides: [Core::Slide.new(id: new_id)]))
        redirect "/lessons/#{id}", 303
      end

      get "/:id" do |id|
        record = lesson(id)
        page("lessons/builder", title: record.lesson.title, layout: "layouts/builder", **builder(record, params["slide"]))
      end

      post "/:id/title" do |id|
        change(id) { |lesson| Core::Lesson.read_title(params["title"]).map { |title| lesson.renamed(title) } }
      end

      post "/:id/slides" do |id|
        slide = Core::Slide.new(id: new_id)
        change(id, slide.id) { |lesson| with_room(lesson).map { lesson.with_slide_after(params["after"], slide) } }
      end

      post "/:id/slides/:slide" do |id, slide_id|
        edit(id, slide_id) { |slide| slide.edited(params.slice("heading", "text", "notes", "alt", "prompt")) }
      end

      post "/:id/slides/:slide/prompt" do |id, slide_id|
        edit(id, slide_id) do |slide|
          kind = Core::Prompts.kind(params["kind"])
          prompt = kind&.new(id: "p#{new_id}", settings: slide.prompt&.shared || {})
          Core::Reading.ok(slide.with(prompt: prompt))
        end
      end

      post "/:id/slides/:slide/picture" do |id, slide_id|
        lesson(id)
        upload = params["picture"]
        halt refuse("Choose a picture first.") unless upload.is_a?(Hash) && upload[:tempfile]

        picture = granted(Operations::KeepPicture.new.call(account_id, upload[:tempfile], upload[:filename]))
        edit(id, slide_id) { |slide| Core::Reading.ok(slide.with(picture: picture)) }
      end

      post "/:id/slides/:slide/picture/remove" do |id, slide_id|
        edit(id, slide_id) { |slide| Core::Reading.ok(slide.with(picture: nil)) }
      end

      post "/:id/slides/:slide/move" do |id, slide_id|
        change(id, params["shown"] || slide_id) do |lesson|
          place = lesson.place(slide_id)
          by = { "up" => -1, "down" => 1 }[params["way"]]
          to = by ? place.to_i + by : number("to")
          place && to ? Core::Reading.ok(lesson.moving(slide_id, to)) : gone
        end
      end

      post "/:id/slides/:slide/duplicate" do |id, slide_id|
        copy_id = new_id
        change(id, copy_id) do |lesson|
          lesson.slide(slide_id) ? with_room(lesson).map { lesson.duplicating(slide_id, copy_id) } : gone
        end
      end

      post "/:id/slides/:slide/remove" do |id, slide_id|
        place = lesson(id).lesson.place(slide_id)
        reading = Operations::ChangeLesson.new.call(account_id, id.to_i) do |lesson|
          lesson.slide(slide_id) ? Core::Reading.ok(lesson.without_slide(slide_id)) : gone
        end
        left = granted(reading).lesson.slides
        redirect "/lessons/#{id}?#{URI.encode_www_form(slide: left[[place, left.length - 1].min]&.id, removed: 1)}", 303
      end

      post "/:id/undo" do |id|
        granted(Operations::UndoLesson.new.call(account_id, id.to_i))
        redirect "/lessons/#{id}?#{URI.encode_www_form(slide: params["slide"])}", 303
      end

      post "/:id/delete" do |id|
        not_found unless lessons.mark_deleted(account_id, id.to_i, true)
        redirect "/lessons?deleted=#{id.to_i}", 303
      end

      post "/:id/restore" do |id|
        not_found unless lessons.mark_deleted(account_id, id.to_i, false)
        redirect "/lessons", 303
      end

      get "/:id/start" do |id|
        page("lessons/start", title: "Start #{lesson(id).lesson.title}", record: lesson(id))
      end

      post "/:id/start" do |id|
        session = granted(Operations::StartSession.new.call(account_id, id.to_i, params))
        FrontDoor.trust(Address.of(request), session.code)
        redirect "/desk/#{session.id}", 303
      end

      helpers do
        def lessons = Store::Lessons.new

        def lesson(id)
          record = lessons.find(account_id, Integer(id, 10, exception: false))
          record && !record.deleted ? record : not_found
        end

        def deleted_lesson
          record = params["deleted"] && lessons.find(account_id, number("deleted"))
          record if record&.deleted
        end

        def new_id = SecureRandom.alphanumeric(10)

        def gone = Core::Reading.refused(Operations::EditSlide::GONE)

        def with_room(lesson)
          most = Core::Lesson::SLIDE_LIMIT
          return Core::Reading.ok(lesson) if lesson.slides.length < most

          Core::Reading.refused("#{most} slides is the most a lesson can have.")
        end

        def builder(record, slide_id)
          { record: record, slide: record.lesson.slide(slide_id) || record.lesson.slides.first }
        end

        def change(id, slide_id = params["slide"], &block)
          answer(Operations::ChangeLesson.new.call(account_id, id.to_i, &block), slide_id)
        end

        def edit(id, slide_id, &block)
          answer(Operations::EditSlide.new.call(account_id, id.to_i, slide_id, rev: number("rev"), &block), slide_id)
        end

        # Saves made while typing come from htmx and get the builder's changed parts.
        def answer(reading, slide_id)
          record = granted(reading)
          return redirect("/lessons/#{record.id}?#{URI.encode_www_form(slide: slide_id)}", 303) unless htmx?

          partial("lessons/columns", **builder(record, slide_id))
        end
      end
    end
  end
end
