# frozen_string_literal: true

module Roost
  module Web
    # The Desk: the teacher's private control view of a live session.
    class Desk < TeacherApp
      include Brief

      # Of commands, beside those of the kinds.
      ARGUMENTS = %w[from slide seconds what seat named beside page seats size after paper number section style speed goal
                     answering talk step].freeze
      # How long a timer may be, to begin with.
      LENGTHS = { 30 => "30 s", 60 => "1 min", 120 => "2 min", 180 => "3 min", 300 => "5 min" }.freeze

      get "/:id" do |id|
        row = own_session(id)
        redirect "/assignments/#{row.id}" if row.self_paced
        page("desk/show", title: "#{row.title} · Desk", layout: "layouts/desk", row: row, now: row.now, lengths: LENGTHS,
                          view: Core::Session::Views.desk(Store::Moments.new.of(row)))
      end

      # An address to open on another device, which needs no sign-in.
      get("/:id/screen") { |id| redirect "/screen/#{own_session(id).screen_key}" }

      # The class screen in a window of the teacher's own, at which she can draw.
      get "/:id/board" do |id|
        row = own_session(id)
        redirect "/assignments/#{row.id}" if row.self_paced
        view = Core::Session::Views.screen(Store::Moments.new.of(row))
        page("screen/show", title: row.title, layout: "layouts/board", bundle: "screen", theme: view.theme, view: view,
                            now: row.now, key: row.screen_key, send: "/desk/#{row.id}/ink")
      end

      get("/:id/ink") { |id| Ink.strokes(self, own_session(id)) }

      # What the pen draws, erases or points at.
      post "/:id/ink" do |id|
        ink = Operations::DrawInk.new
        granted(if params["erase"] then ink.erase(account_id, whole(id), text("erase"))
                elsif params["at"] then ink.point(account_id, whole(id), text("at"))
                else ink.draw(account_id, whole(id), params)
                end)
        204
      end

      # Commands answer with the refusal, or nothing: what they did comes by the stream.
      post "/:id/commands" do |id|
        arguments = params.slice(*ARGUMENTS, *Core::Kinds::Handling.arguments)
        granted(Operations::CommandSession.new.call(account_id, whole(id), params["command"].to_s, arguments))
        done(id)
      end

      post "/:id/ask" do |id|
        granted(Operations::AskNow.new.call(account_id, whole(id), params["words"].to_s, params["heading"], from: params["from"]))
        done(id)
      end

      post "/:id/practice" do |id|
        granted(Operations::PracticeClass.new.invite(account_id, whole(id), number("count")))
        done(id)
      end

      post "/:id/post" do |id|
        granted(Operations::PostToCourse.new.call(account_id, whole(id)))
        done(id)
      end

      # A name that was stopped may come in after all.
      post "/:id/names" do |id|
        not_found unless Operations::AllowName.new.call(account_id, whole(id), text("name").to_s)
        done(id)
      end

      # One student: what they gave so far, and what may be done with the seat.
      get "/:id/seats/:seat" do |id, seat|
        row = own_session(id)
        results = Core::Analysis::Results.new(Store::Records.new.of(row))
        line = results.line_of(whole(seat)) || not_found
        partial("desk/seat", row: row, results: results, line: line, number: Store::Seats.new.number(line.seat.id),
                             devices: Store::Seats.new.devices([line.seat.id]).fetch(line.seat.id, []))
      end

      # One question of a quiz, as all have answered it so far.
      get "/:id/questions/:slide" do |id, slide_id|
        row = own_session(id)
        slide = Store::Sessions.new.lesson_of(row).slide(slide_id)
        not_found unless slide&.prompt
        partial("desk/question", row: row, slide: slide, record: Store::Records.new.at_slide(row, slide.id))
      end

      post "/:id/seats/:seat/name" do |id, seat|
        granted(Operations::RenameSeat.new.call(account_id, whole(id), whole(seat), params["name"]))
        done(id)
      end

      post "/:id/seats/:seat/team" do |id, seat|
        granted(Operations::MoveToTeam.new.call(account_id, whole(id), whole(seat), number("team")))
        done(id)
      end

      # Teams that play at the board.
      post "/:id/board" do |id|
        granted(Operations::BoardTeams.new.call(account_id, whole(id), text("names")))
        done(id)
      end

      # What one of them answers.
      post "/:id/board/:seat" do |id, seat|
        granted(Operations::EnterAnswer.new.call(account_id, whole(id), whole(seat), keys: text("keys"),
                                                                                     mark: text("mark")))
        done(id)
      end

      # Everybody is dealt to the teams anew.
      post "/:id/teams" do |id|
        Operations::DealTeams.new.call(account_id, whole(id)) || not_found
        done(id)
      end

      get("/:id/keypads") { |id| keypads(own_session(id)) }

      # A receiver of keypads is let in, or not.
      post "/:id/receivers/:receiver" do |id, receiver|
        row = own_session(id)
        granted(Operations::Keypads.new.answer_knock(account_id, row.id, whole(receiver), allowed: params["allowed"] == "1"))
        keypads(row)
      end

      post "/:id/keypads/:seat" do |id, seat|
        granted(Operations::Keypads.new.give(account_id, whole(id), whole(seat), number("student")))
        keypads(own_session(id))
      end

      post "/:id/seats/:seat/free" do |id, seat|
        granted(Operations::FreeName.new.call(account_id, whole(id), whole(seat)))
        done(id)
      end

      post "/:id/seats/:seat/remove" do |id, seat|
        granted(Operations::RemoveSeat.new.call(account_id, whole(id), whole(seat)))
        done(id)
      end

      helpers do
        def keypads(row)
          receivers = Store::Receivers.new
          sitting = Store::Seats.new.people(row.id)
          free = Store::Records.new.class_of(row).reject { |each| sitting.include?(each.id) }
          partial("desk/keypads", row: row, receivers: receivers.of(row.id), keypads: receivers.all_keypads(row.id),
                                  free: free)
        end

        # What a command did comes by the stream.
        def done(id) = htmx? ? 204 : redirect("/desk/#{whole(id)}", 303)
      end
    end
  end
end
