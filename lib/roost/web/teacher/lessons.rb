# frozen_string_literal: true

module Roost
  module Web
    # The list of lessons, and what is done with a lesson as a whole: its details, sharing,
    # copying, history, starting.
    class Lessons < TeacherApp
      helpers LessonPages

      PRACTICE = 24 # students

      get "/" do
        filters = params.slice("shelf", *Store::Catalogue::FIELDS).transform_values(&:to_s)
        page_number = [number("page").to_i, 1].max
        found = catalogue.find(account_id, query: params["q"].to_s[0, 200], filters: filters, page: page_number)
        page("lessons/index", title: "Lessons", entries: found.first(Store::Catalogue::PAGE), filters: filters,
                              page_number: page_number, more: found.length > Store::Catalogue::PAGE, deleted: deleted_lesson,
                              values: %w[subject level].to_h { |field| [field, catalogue.values(account_id, field)] },
                              deleted_lately: lessons.deleted_lately(account_id))
      end

      post "/" do
        title = granted(Core::Lesson.read_title(params["title"]))
        id = Operations::CreateLesson.new.call(account_id, Core::Lesson.new(title: title, slides: [Core::Slide.new(id: new_id)]))
        redirect lesson_path(id), 303
      end

      # A ready lesson with a practice class, for somebody who has never seen it run.
      post "/try" do
        id = Operations::ReadyLesson.new.call(account_id, Operations::ReadyLesson::FIRST)
        session = granted(Operations::StartSession.new.call(account_id, id, Core::Session::Options.form))
        begun("try")
        granted(Operations::PracticeClass.new.invite(account_id, session.id, PRACTICE))
        redirect "/desk/#{session.id}", 303
      end

      # A lesson of a file of slides.
      post "/file" do
        file = uploads("file").first
        name = File.basename(file[:filename].to_s, ".*").tr("_-", "  ").strip[0, 80]
        title = granted(Core::Lesson.read_title(name.empty? ? "Slides" : name))
        id = Operations::CreateLesson.new.call(account_id, Core::Lesson.new(title: title, slides: []))
        brought = Operations::ImportFile.new.call(account_id, id, file[:tempfile], file[:filename], after: nil)
        Operations::DeleteLesson.new.call(account_id, id) unless brought.ok?
        granted(brought)
        begun("file")
        redirect lesson_path(id), 303
      end

      # A lesson to be begun from a ready slide.
      post "/starters" do
        id = Operations::CreateLesson.new.call(account_id, Core::Lesson.new(title: "My first lesson", slides: []))
        begun("starters")
        redirect "/lessons/#{id}/starters", 303
      end

      get "/:id/about" do
        page("lessons/about", title: "About #{entry.title}", entry: entry, row: lesson, shares: sharing.of(lesson.id))
      end

      post "/:id/about" do
        reading = change_lesson do |lesson|
          Core::Lesson.read_title(params.fetch("title", lesson.title)).and_then do |title|
            lesson.details.edited(params).map { |details| lesson.with(title: title, details: details) }
          end
        end
        saved = granted(reading)
        htmx? ? partial("lessons/saved_at", row: saved) : redirect("/lessons/#{saved.id}/about", 303)
      end

      # A lesson as others get to see it: to look through before copying it.
      get "/:id/look" do
        page("lessons/look", title: entry.title, entry: entry, row: looked_at)
      end

      post "/:id/copy" do
        redirect lesson_path(Operations::CopyLesson.new.call(account_id, number("id")) || not_found), 303
      end

      post "/:id/shares" do
        edits = params["may_edit"] == "1"
        granted(Operations::ShareLesson.new.call(account_id, number("id"), params["email"].to_s, may_edit: edits))
        redirect "/lessons/#{number("id")}/about#sharing", 303
      end

      post "/:id/shares/:account/remove" do
        granted(Operations::UnshareLesson.new.call(account_id, number("id"), number("account")))
        redirect "/lessons/#{number("id")}/about#sharing", 303
      end

      post "/:id/open" do
        mark(:open, "open")
        redirect "/lessons/#{number("id")}/about#sharing", 303
      end

      post "/:id/star" do
        mark(:starred, "starred")
        htmx? ? partial("lessons/star", entry: entry) : redirect(back_to_list, 303)
      end

      post "/:id/archive" do
        mark(:archived, "archived")
        redirect back_to_list, 303
      end

      get "/:id/history" do
        row = lesson
        page("lessons/history", title: "History of #{row.lesson.title}", row: row,
                                revisions: Store::Revisions.new.of(row.id, before: number("before")))
      end

      get "/:id/history/:number" do
        row = lesson
        earlier = Store::Revisions.new.lesson(row.id, number("number")) || not_found
        revision = Store::Revisions.new.find(row.id, number("number")) || not_found
        page("lessons/earlier", title: "#{row.lesson.title}, earlier", row: row, earlier: earlier, revision: revision)
      end

      post "/:id/history/:number" do
        row = granted(Operations::RestoreLesson.new.call(account_id, number("id"), number("number")))
        redirect lesson_path(row.id, restored: number("number")), 303
      end

      post "/:id/delete" do
        not_found unless Operations::DeleteLesson.new.call(account_id, number("id"))
        redirect "/lessons?deleted=#{number("id")}", 303
      end

      post "/:id/restore" do
        not_found unless Operations::DeleteLesson.new.call(account_id, number("id"), deleted: false)
        redirect "/lessons", 303
      end

      get "/:id/start" do
        running = Store::PastSessions.new.running_of(account_id).select { |each| each.lesson_id == looked_at.id }
        classes = Store::Classes.new.all(account_id)
        likely = Operations::LikelyClass.new.call(account_id, classes, Store::Sessions.new.now) unless params.key?("class_id")
        chosen = classes.find { |each| each.id == (likely || number("class_id")) }
        last = chosen && Store::PastSessions.new.latest_of_class(account_id, chosen.id)
        page("lessons/start", title: "Start #{looked_at.lesson.title}", row: looked_at, running: running, classes: classes,
                              chosen: chosen, options: last ? last.options : Core::Session::Options.from_document({}))
      end

      post "/:id/start" do
        session = granted(Operations::StartSession.new.call(account_id, number("id"), params))
        redirect "/desk/#{session.id}", 303
      end

      helpers do
        def begun(way) = Operations::NoteBegun.new.call(account_id, way)

        def catalogue = Store::Catalogue.new

        def mark(mark, field)
          granted(Operations::MarkLesson.new.call(account_id, number("id"), mark, params[field] == "1"))
        end

        def back_to_list = "/lessons?#{URI.encode_www_form(params.slice("shelf"))}"

        def deleted_lesson
          row = params["deleted"] && lessons.find(account_id, number("deleted"))
          row if row&.deleted
        end
      end
    end
  end
end
