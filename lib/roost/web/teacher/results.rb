# frozen_string_literal: true

module Roost
  module Web
    # Looking back: sessions that have run, per question and per student, and as a sheet.
    class Results < TeacherApp
      helpers ResultPages, ExportPages

      # What a change did, by the word that the address carries.
      CHANGES = { "both" => "Corrected, here and in the lesson. All marks and points are computed anew.",
                  "session" => "Fixed for this session. All marks and points have been recalculated.",
                  "put_aside" => "Set aside: that question counts for nobody.",
                  "count_again" => "That question counts again." }.freeze

      ON_A_PAGE = 100 # sessions

      get "/" do
        found = Store::PastSessions.new.all_of(account_id, before: number("before"), most: ON_A_PAGE + 1)
        rows = found.first(ON_A_PAGE)
        deleted = params["deleted"] && sessions.of_teacher(account_id, number("deleted"), deleted: true)
        page("results/index", title: "Results", rows: rows, further: found.length > ON_A_PAGE,
                              seats: Store::Seats.new.count(rows.map(&:id)),
                              to_mark: Operations::ToMark.new.call(account_id),
                              for_others: Store::SecondMarks.new.asked_of(account_id),
                              deleted: (deleted if deleted&.deleted),
                              deleted_lately: Store::PastSessions.new.deleted_lately(account_id))
      end

      get("/:id") { |id| show(id, "results/students", "Students") }

      get "/:id/print" do |id|
        row = own_session(id)
        page("results/print", title: row.title, row: row, results: results(row))
      end

      get("/:id/rounds") { |id| show(id, "results/rounds", "Rounds") }

      get("/:id/questions") { |id| show(id, "results/questions", "Questions") }

      # Correcting a question: a page of its own, or the inside of a dialog at the Desk.
      get "/:id/questions/:slide/key" do |id, slide_id|
        row = own_session(id)
        slide = question(row, slide_id)
        base = "/results/#{row.id}/questions/#{slide.id}"
        if htmx?
          next partial("results/key", base: base, prompt: slide.prompt, slide: slide, inside: true,
                                      set_aside: row.state.set_aside?(slide.id),
                                      in_lesson: Operations::CorrectQuestion.in_lesson?(row, slide))
        end

        page("results/correct", title: "Fix a question", row: row, slide: slide, base: base)
      end

      post "/:id/questions/:slide/key" do |id, slide_id|
        row = own_session(id)
        question(row, slide_id)
        form = params["prompt"].is_a?(Hash) ? params["prompt"] : {}
        done = granted(Operations::CorrectQuestion.new.call(account_id, row.id, slide_id, form,
                                                            in_lesson: params["in_lesson"] == "1"))
        changed(row, slide_id, done.in_lesson ? "both" : "session")
      end

      post "/:id/questions/:slide/aside" do |id, slide_id|
        row = own_session(id)
        command = params["set_aside"] == "1" ? "put_aside" : "count_again"
        granted(Operations::CommandSession.new.call(account_id, row.id, command, { "slide" => slide_id }))
        changed(row, slide_id, command)
      end

      # Answers that came late count all the same, of one seat or of all, or not any more.
      post "/:id/questions/:slide/late" do |id, slide_id|
        counts = params["counts"] == "1"
        Operations::LetCount.new.call(account_id, whole(id), slide_id, counts: counts, seat_id: number("seat")) || not_found
        next 204 if htmx?

        back = params["from"] == "student" && number("seat") ? "students/#{number("seat")}#answer-" : "questions#question-"
        redirect "/results/#{whole(id)}/#{back}#{slide_id}", 303
      end

      get "/:id/students/:seat" do |id, seat_id|
        row = own_session(id)
        results = results(row)
        line = results.line_of(whole(seat_id)) || not_found
        Operations::NoteLook.new.call(account_id, [line.seat.student_id], :results, said: row.title)
        page("results/student", title: line.seat.name, row: row, results: results, line: line,
                                drawn_on: Store::DrawnOn.new.of(row.id, line.seat.id),
                                levels: Store::HandMarks.new.levels(row.id, line.seat.id),
                                comments: Store::Comments.new.of([line.seat.id]), sent: Store::SentTexts.new.of([line.seat.id]),
                                devices: Store::Seats.new.devices([line.seat.id]).fetch(line.seat.id, []))
      end

      # Whose seat it was.
      post "/:id/students/:seat/link" do |id, seat_id|
        row = own_session(id)
        granted(Operations::LinkSeat.new.call(account_id, row.id, whole(seat_id), number("student")))
        redirect "/results/#{row.id}/students/#{whole(seat_id)}", 303
      end

      # What the teacher writes to a student about one answer.
      post "/:id/students/:seat/:slide/comment" do |id, seat_id, slide_id|
        row = own_session(id)
        granted(Operations::CommentAnswer.new.call(account_id, row.id, whole(seat_id), slide_id, params["text"].to_s,
                                                   attempt: number("attempt") || 1))
        redirect "/results/#{row.id}/students/#{whole(seat_id)}#answer-#{slide_id}", 303
      end

      # One answer as a picture file, for kinds whose answers are pictures.
      get %r{/(\d+)/students/(\d+)/(\w+)\.(svg|png)} do |id, seat_id, slide_id, format|
        row = own_session(id)
        slide = sessions.lesson_of(row).slide(slide_id)
        under = slide&.prompt&.uses_picture? ? slide.picture : nil
        svg = answer_svg(row, slide, whole(seat_id), under: under)
        drawn = Operations::DrawAnswer.new.call(svg, format, picture: under)
        name = Store::Seats.new.of(row.id).find { |seat| seat.id == whole(seat_id) }.name
        attachment "#{file_name("#{slide.name} #{name}")}.#{format}"
        content_type drawn.type
        drawn.file
      end

      get "/:id/results.csv" do |id|
        row = own_session(id)
        content_type "text/csv; charset=utf-8"
        attachment "#{file_name(row.title)} #{school_time.local(row.created_at).strftime("%Y-%m-%d")}.csv"
        results = results(row)
        Exchange::ResultsSheet.new(results, class_name: row.class_name, date: date(row.created_at),
                                            comments: Store::Comments.new.of(results.record.seats.map(&:id))).to_csv
      end

      # Whether students may look at what they gave.
      post "/:id/copies" do |id|
        row = own_session(id)
        Operations::AllowCopies.new.call(account_id, row.id, params["allowed"] == "1")
        redirect "/results/#{row.id}", 303
      end

      # Whether their copies have all that is right, whatever was told; first a page on what that opens.
      get "/:id/release" do |id|
        row = own_session(id)
        page("results/release", title: "Release the right answers", row: row, open: Operations::StillOpen.new.call(row))
      end

      post "/:id/release" do |id|
        row = own_session(id)
        Operations::ReleaseCopies.new.call(account_id, row.id, params["released"] == "1")
        redirect "/results/#{row.id}", 303
      end

      post "/:id/delete" do |id|
        row = own_session(id)
        unless Operations::DeleteSession.new.call(account_id, row.id)
          halt refuse("This session is still running. End it at the Desk first.")
        end
        redirect "/results?deleted=#{row.id}", 303
      end

      post "/:id/restore" do |id|
        row = own_session(id, deleted: true)
        Operations::DeleteSession.new.call(account_id, row.id, deleted: false)
        redirect "/results", 303
      end

      helpers do
        # Questions by number, each with the way to what was answered.
        # @return [String] HTML
        def questions_of(row, slides, results)
          links = slides.map do |slide|
            %(<a href="/results/#{row.id}/questions#question-#{slide.id}">#{results.number(slide)}</a>)
          end
          "#{slides.one? ? "Question" : "Questions"} #{listed(links)}"
        end

        # @return [Array<Core::Session::Seat, nil>] who comes before and who after, in the order of the class
        def neighbours(results, line)
          seats = results.record.in_order(results.record.seats)
          at = seats.index { |seat| seat.id == line.seat.id }
          [(seats[at - 1] if at.positive?), seats[at + 1]]
        end

        # How the questions of a session went wherever they were asked.
        # @return [Hash{String=>Core::Analysis::OverSessions}] by origin
        def over_sessions(results)
          origins = results.slides.map { |slide| slide.prompt.origin }.uniq
          @over_sessions ||= Operations::OverSessions.new.call(account_id, origins)
        end

        # @param asked [Hash] how it is to be read
        def grid_of(results, asked = {}, path: nil) = ResultsGrid.new(results, asked, path: path)

        # The Desk hears of it by its stream.
        def changed(row, slide_id, change)
          htmx? ? 204 : redirect("/results/#{row.id}/questions?changed=#{change}#question-#{slide_id}", 303)
        end

        def results(row) = Core::Analysis::Results.new(Store::Records.new.of(row))

        def show(id, template, tab)
          row = own_session(id)
          page("results/show", title: row.title, row: row, results: results(row), tab: tab, template: template,
                               changed: self.class::CHANGES[params["changed"]])
        end
      end
    end
  end
end
