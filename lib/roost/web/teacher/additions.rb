# frozen_string_literal: true

module Roost
  module Web
    # What is brought into a lesson from elsewhere: files of slides, pictures in bulk, a
    # sheet of questions, starters, questions kept in the bank.
    class Additions < TeacherApp
      helpers LessonPages

      XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"

      get "/:id/add" do
        page("additions/add", title: "Add to #{lesson.lesson.title}", row: lesson, slide_id: params["slide"])
      end

      post "/:id/imports" do
        row = lesson
        file = uploads("file").first
        granted(Operations::ImportFile.new.call(account_id, row.id, file[:tempfile], file[:filename], after: params["slide"]))
        return progress(row.id) if htmx?

        redirect lesson_path(row.id, slide: params["slide"]), 303
      end

      get("/:id/imports") { progress(lesson.id) }

      # Stops it; the pages that are here stay.
      post "/:id/imports/:import/stop" do
        end_import(told: true)
        progress(number("id"))
      end

      post "/:id/imports/:import/dismiss" do
        end_import
        progress(number("id"))
      end

      # Takes the slides of an import out again, in one change.
      post "/:id/imports/:import/out" do
        redirect lesson_path(end_import(out: true).lesson_id, removed: 1), 303
      end

      # Pictures in bulk: each becomes a slide, in the order they were chosen.
      post "/:id/pictures" do
        lesson
        slides = sent_pictures.map do |picture, filename|
          name = File.basename(filename, ".*").tr("_-", "  ").strip[0, 80]
          Core::Slide.new(id: new_id, title: name, arrangement: "full", pictures: [picture])
        end
        add(slides)
      end

      # A sheet of questions: looked at first, and nothing is saved.
      post "/:id/sheet" do
        row = lesson
        file = uploads("sheet").first
        name = File.basename(file[:filename].to_s)[0, 80]
        found = question_sheet.read(file[:tempfile].path, mark: new_id)
        halt refuse("“#{name}” #{found.reason}") unless found.ok?
        page("additions/sheet", title: name, row: row, name: name, found: found.value, slide_id: params["slide"],
                                ticket: Operations::HoldUpload.new.call(account_id, file[:tempfile]))
      end

      post "/:id/sheet/:ticket" do
        lesson
        slides = granted(Operations::AddSheet.new.call(account_id, number("id"), params["ticket"], sheet: question_sheet,
                                                       after: params["slide"], mark: new_id))
        shown(slides)
      end

      get "/:id/questions.csv" do
        content_type "text/csv; charset=utf-8"
        attachment "#{file_name(looked_at.lesson.title)}.csv"
        question_sheet.csv(looked_at.lesson.slides)
      end

      get "/:id/questions.xlsx" do
        content_type XLSX
        attachment "#{file_name(looked_at.lesson.title)}.xlsx"
        question_sheet.xlsx(looked_at.lesson.slides)
      end

      get "/:id/bank" do
        page("additions/bank", title: "Question bank", row: lesson, slide_id: params["slide"], **bank_page)
      end

      post "/:id/bank" do
        lesson
        taken = Store::Bank.new.take(account_id, Array(params["questions"]).filter_map { |id| whole(id) })
        halt refuse("Choose a question first.") if taken.empty?
        add(taken.map { |row| row.slide.copy(new_id) })
      end

      get "/:id/starters" do
        page("additions/starters", title: "Starters", row: lesson, slide_id: params["slide"], starters: Store::Starters.all)
      end

      post "/:id/starters" do
        lesson
        starter = Store::Starters.find(params["starter"]) || halt(refuse("That starter isn't here. Reload the page."))
        add([granted(Operations::UseStarter.new.call(account_id, starter, new_id))])
      end

      helpers BankPages

      helpers do
        def question_sheet = Exchange::QuestionSheet.new(->(file) { !Store::Media.new.find(file).nil? })

        def imports = Store::Imports.new

        def end_import(**how)
          granted(Operations::EndImport.new.call(account_id, lesson.id, number("import"), **how))
        end

        # The state of what is coming in, and the list of slides when more are there.
        def progress(lesson_id)
          under_way = imports.of(lesson_id)
          grown = number("seen") && number("seen") != under_way.sum(&:done)
          row = lesson if grown
          partial("imports/progress", lesson_id: lesson_id, imports: under_way, row: row, slide_id: params["slide"])
        end

        def add(slides)
          granted(change_lesson { |lesson| lesson.bringing_in(slides, after: params["slide"]) })
          shown(slides)
        end

        def shown(slides) = redirect(lesson_path(number("id"), slide: slides.first.id, added: slides.length), 303)
      end
    end
  end
end
