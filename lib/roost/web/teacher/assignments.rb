# frozen_string_literal: true

module Roost
  module Web
    # What a teacher gives to be done alone: giving it, who is how far, and what may be changed about it.
    class Assignments < TeacherApp
      # What was done, by the word that the address carries.
      DONE = { "caught" => "Assigned: each of them finds what they missed on their page.",
               "given" => "Assigned. Students with a pass find it on their page.", "allowed" => "Allowed.",
               "undone" => "The hand-in is undone: the student can continue.",
               "freed" => "The name is free: whoever it belongs to can join under it.",
               "posted" => "Posted to the course page.",
               "close" => "Closed for all. What was written counts.", "change" => "Changed.",
               "take_back" => "Withdrawn: it is gone from the students' pages, and kept in your records.",
               "give_back" => "Assigned again." }.freeze

      get "/" do
        rows = sessions.assigned_by(account_id)
        assignments = Store::Assignments.new.of(rows.map(&:id))
        open = rows.select { |row| assignments.fetch(row.id).stage(row.now) == :open }
        page("assignments/index", title: "Assignments", rows: rows, assignments: assignments,
                                  waiting: open.to_h { |row| [row.id, boards(row).values.sum] },
                                  seats: Store::Seats.new.count(rows.map(&:id)), done: Store::Sittings.new.handed_in(rows.map(&:id)))
      end

      get("/new") { new_page }

      post "/" do
        given = Operations::AssignLesson.new.call(account_id, number("lesson"), params)
        not_found unless given
        halt 422, new_page(refusal: given.reason) unless given.ok?
        redirect "/assignments/#{given.value.id}?said=given", 303
      end

      get "/:id.ics" do |id|
        row = own(id)
        content_type "text/calendar"
        attachment "#{file_name(row.title)}.ics"
        Exchange::Calendar.event(uid: "assignment-#{row.id}@#{URI(Roost.settings.base_url).host}", title: row.title,
                                 url: link(row), opens_at: assignment(row).opens_at, closes_at: assignment(row).closes_at,
                                 stamp: row.now)
      end

      get "/:id.svg" do |id|
        content_type "image/svg+xml"
        QrCodes.svg(link(own(id)))
      end

      # Who missed what in a session.
      get "/catch-up" do
        catch_up_page(own_session(params["session"]))
      end

      # All who need it, or those who were chosen.
      post "/catch-up" do
        chosen = Array(params["students"]).filter_map { |id| whole(id) } if params["chosen"] == "1"
        given = Operations::GiveCatchUp.new.call(account_id, number("session").to_i, chosen: chosen, form: params)
        not_found unless given
        halt 422, catch_up_page(own_session(params["session"]), picked: chosen, refusal: given.reason) unless given.ok?
        redirect "/assignments/#{given.value.id}?said=caught", 303
      end

      get("/:id") { |id| show(own(id)) }

      # One board, at which cards are let through.
      get "/:id/questions/:slide" do |id, slide_id|
        row = own(id)
        slide = board(row, slide_id)
        page("assignments/question", title: slide.name, row: row, slide: slide,
                                     record: Store::Records.new.at_slide(row, slide.id))
      end

      post "/:id/questions/:slide" do |id, slide_id|
        row = own(id)
        slide = board(row, slide_id)
        arguments = params.slice(*Core::Kinds::Handling.arguments).merge("slide" => slide.id, "what" => params["what"].to_s)
        granted(Operations::CommandSession.new.call(account_id, row.id, "curate", arguments))
        redirect "/assignments/#{row.id}/questions/#{slide.id}", 303
      end

      # A mail to the teacher herself, to be sent on.
      post "/:id/mail" do |id|
        row = own(id)
        Operations::MailAssignment.new.call(account_id, row.id, link(row), only_open: params["open"] == "1")
        redirect "/assignments/#{row.id}?said=mailed", 303
      end

      post "/:id/post" do |id|
        row = own(id)
        changed(row, Operations::PostToCourse.new.call(account_id, row.id), "posted")
      end

      post "/:id/allow" do |id|
        row = own(id)
        whom = number("seat") ? { seat_id: number("seat") } : { student_id: number("student") }
        changed(row, Operations::AllowMore.new.call(account_id, row.id, whom, params), "allowed")
      end

      post "/:id/seats/:seat/undo" do |id, seat|
        row = own(id)
        changed(row, Operations::UndoHandIn.new.call(account_id, row.id, whole(seat)), "undone")
      end

      post "/:id/seats/:seat/free" do |id, seat|
        row = own(id)
        changed(row, Operations::FreeName.new.call(account_id, row.id, whole(seat)), "freed")
      end

      post "/:id/:way" do |id, way|
        not_found unless Operations::ChangeAssignment::WAYS.include?(way)
        row = own(id)
        changed(row, Operations::ChangeAssignment.new.call(account_id, row.id, way, params), way)
      end

      helpers do
        def sessions = Store::Sessions.new

        # @return [Store::Sessions::Row]
        def own(id) = own_session(id).then { |row| row.self_paced ? row : not_found }

        def assignment(row) = Store::Assignments.new.find(row.id)

        # @return [Hash{Core::Slide=>Integer}] boards that are given to how much waits there for the teacher
        def boards(row) = Operations::WaitingCards.new.call(row)

        def board(row, slide_id) = boards(row).keys.find { |slide| slide.id == slide_id } || not_found

        def link(row) = Roost.settings.join_link(row.code)

        def changed(row, done, word)
          not_found unless done
          halt 422, show(row, refusal: done.reason) unless done.ok?
          redirect "/assignments/#{row.id}?said=#{word}", 303
        end

        # @param picked [Array<Integer>, nil] ids of students who were chosen; nil for all
        def catch_up_page(row, picked: nil, refusal: nil)
          opens, closes = school_time.week_from(sessions.now)
          page("assignments/catch_up", title: "Catch up: #{row.title}", row: row, missed: Operations::GiveCatchUp.missed(row),
                                       picked: picked, refusal: refusal, opens: params["opens_at"] || school_time.field(opens),
                                       closes: params["closes_at"] || school_time.field(closes))
        end

        # @param refusal [String, nil]
        def show(row, refusal: nil)
          progress = Operations::FollowAssignment.new.call(row)
          page("assignments/show", title: row.title, row: row, boards: boards(row), assignment: assignment(row),
                                   progress: progress, refusal: refusal, link: link(row),
                                   devices: Store::Seats.new.devices(progress.rows.filter_map(&:seat_id)),
                                   allowances: Store::Assignments.new.allowances(row.id), told: Store::Tellings.new.counts(row.id),
                                   said: params["said"] == "mailed" ? "In the outbox." : DONE[params["said"]])
        end

        def new_page(refusal: nil)
          lesson = Store::Lessons.new.look(account_id, number("lesson").to_i) || not_found
          classes = Store::Classes.new.all(account_id)
          likely = Operations::LikelyClass.new.call(account_id, classes, sessions.now) unless params.key?("class_id")
          opens, closes = school_time.next_week(sessions.now)
          page("assignments/new", title: "Assign #{lesson.lesson.title}", row: lesson, classes: classes, refusal: refusal,
                                  chosen: likely || number("class_id"),
                                  opens: params["opens_at"] || school_time.field(opens),
                                  closes: params["closes_at"] || school_time.field(closes),
                                  sections: Array(params["sections"]))
        end
      end
    end
  end
end
