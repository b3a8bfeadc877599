# frozen_string_literal: true

module Roost
  module Web
    # A session looked back on beyond marks: as it went in time, what was drawn, and its questions in other sessions.
    class LessonPast < TeacherApp
      helpers ResultPages, ExportPages

      # What is made in the background, as it is called.
      FILES = { "xlsx" => "workbook", "pdf" => "PDF (A4)", "letter" => "PDF (Letter)" }.freeze

      # The lesson as it went.
      get "/:id/timeline" do |id|
        row = own_session(id)
        not_found unless row.ended_at && !row.self_paced
        timeline = Core::Analysis::Timeline.new(Store::Records.new.whole(row), ended_at: row.ended_at.to_f)
        page("results/timeline", title: "#{row.title}: as it went", row: row, timeline: timeline)
      end

      # What the teacher's pen has left, page by page.
      get "/:id/drawn" do |id|
        row = own_session(id)
        pages = drawn_pages(row)
        not_found if pages.empty?
        page("results/board", title: "Drawn in #{row.title}", row: row, pages: pages)
      end

      # The same question wherever it was asked.
      get "/:id/questions/:slide/sessions" do |id, slide_id|
        row = own_session(id)
        slide = question(row, slide_id)
        over = Operations::OverSessions.new.call(account_id, [slide.prompt.origin])[slide.prompt.origin] || not_found
        page("results/over_sessions", title: slide.name, row: row, slide: slide, over: over)
      end

      # Files that are made in the background.
      get("/:id/files") { |id| own_session(id).then { |row| page("results/files", title: "Files of #{row.title}", row: row) } }

      get(%r{/(\d+)/files/(xlsx|pdf|letter)}) do |id, kind|
        row = own_session(id)
        htmx? ? file_part(row, kind) : redirect("/results/#{row.id}/files", 303)
      end

      post(%r{/(\d+)/files/(xlsx|pdf|letter)}) do |id, kind|
        granted(Operations::MakeExport.new.start(account_id, "session_#{kind}", own_session(id).id))
        redirect "/results/#{whole(id)}/files", 303
      end

      get(%r{/(\d+)/files/(xlsx|pdf|letter)\.file}) do |id, kind|
        row = own_session(id)
        name = "#{file_name(row.title)} #{school_time.local(row.created_at).strftime("%Y-%m-%d")}"
        send_export("session_#{kind}", row.id, path: "/results/#{row.id}/files", name: "#{name}.#{kind == "xlsx" ? kind : "pdf"}")
      end

      # One student's results on paper.
      get("/:id/students/:seat/pdf") do |id, seat_id|
        htmx? ? seat_part(own_session(id), whole(seat_id)) : redirect("/results/#{whole(id)}/students/#{whole(seat_id)}", 303)
      end

      post "/:id/students/:seat/pdf" do |id, seat_id|
        granted(Operations::MakeExport.new.start(account_id, "seat_pdf", whole(seat_id)))
        redirect "/results/#{whole(id)}/students/#{whole(seat_id)}#export-seat_pdf", 303
      end

      get "/:id/students/:seat/pdf.file" do |id, seat_id|
        row = own_session(id)
        seat = Store::Records.new.at_seat(row, whole(seat_id)).seat(whole(seat_id)) || not_found
        send_export("seat_pdf", seat.id, path: "/results/#{row.id}/students/#{seat.id}",
                                         name: "#{file_name(row.title)}, #{file_name(seat.name)}.pdf")
      end

      helpers do
        def file_part(row, kind)
          export_part("session_#{kind}", row.id, path: "/results/#{row.id}/files/#{kind}", made: self.class::FILES.fetch(kind))
        end

        # @return [Array<Array(String, Core::Session::Views::Screen)>] names of pages and what stood there, slides as they
        #   were asked
        def drawn_pages(row)
          lesson = sessions.lesson_of(row)
          (row.state.inked & Store::Ink.new.pages(row.id)).map do |name|
            board = row.state.boards.each_index.find { |number| Core::Session::Ink.board(number) == name }
            slide = lesson.stop(name) || lesson.class_slides.first
            view = Core::Session::Views.screen(Core::Session::Preview.of(lesson, slide.id))
            sheet = Core::Session::Views::Sheet.new(page: name, paper: board && row.state.boards[board], pen: false)
            [board ? "Blank page #{board + 1}" : slide.name, view.dup.tap { |copy| copy.ink = sheet }]
          end
        end

        # What was put up, in words.
        def shown_as(what)
          { "results" => "answers", "key" => "the right answer", "standings" => "standings",
            "spotlight" => "spotlight" }.fetch(what)
        end

        # @return [String] SVG
        def timeline_svg(timeline) = TimelineDrawing.new(timeline, clock: method(:clock), minutes: method(:minutes)).svg
      end
    end
  end
end
