# frozen_string_literal: true

module Roost
  module Web
    # Marks by hand, question by question; also those of a colleague beside them.
    class Marking < TeacherApp
      helpers MarkingPages

      get "/:id/questions/:slide/marks" do |id, slide_id|
        marking_page(*asked(id, slide_id))
      end

      # Marks for those who are named, the same for all, or for each their own, as when they are put back.
      post "/:id/questions/:slide/marks" do |id, slide_id|
        row, slide = asked(id, slide_id)
        next undo(row, slide) if params["undone"]

        before = granted(Operations::MarkByHand.new.call(account_id, row.id, slide.id, marks))
        marking_page(row, slide, undo: { marks: before, comments: {} })
      end

      post "/:id/questions/:slide/marks/stamp" do |id, slide_id|
        row, slide = asked(id, slide_id)
        before = granted(stamps.call(account_id, row.id, slide.id, seats, number("stamp")))
        marking_page(row, slide, undo: before.to_h)
      end

      post "/:id/questions/:slide/marks/comment" do |id, slide_id|
        row, slide = asked(id, slide_id)
        words = granted(Core::Text.read(params["text"], limit: Operations::CommentAnswer::LIMIT, what: "A comment"))
        before = granted(stamps.comment(account_id, row.id, slide.id, seats, words))
        marking_page(row, slide, undo: before.to_h)
      end

      # Drawing over a sketch, or over one card after another.
      get "/:id/students/:seat/:slide/drawn-on" do |id, seat_id, slide_id|
        row, slide = asked(id, slide_id)
        record = Store::Records.new.at_seat(row, whole(seat_id))
        seat = record.seat(whole(seat_id)) || not_found
        value = Operations::ValueGiven.new.call(row, slide.id, seat.id)
        parts = value ? slide.prompt.drawn_parts(value) : []
        part = params["part"] || parts.first
        not_found unless parts.include?(part)
        drawn = Store::DrawnOn.new.of(row.id, seat.id)[[slide.id, record.attempt(slide.id, seat.id)]] || {}
        heading = drawing_title(parts, part)
        page("results/draw_on", title: heading, heading: heading, row: row, slide: slide, seat: seat,
                                value: value, parts: parts, part: part, strokes: drawn.fetch(part, []))
      end

      post "/:id/students/:seat/:slide/drawn-on" do |id, seat_id, slide_id|
        row, slide = asked(id, slide_id)
        granted(Operations::DrawOnAnswer.new.call(account_id, row.id, whole(seat_id), slide.id, params["part"].to_s,
                                                  params["strokes"]))
        on = text("next")
        to = on ? drawing_path(row, slide, whole(seat_id), "part" => on) : marking_path(row, slide, at: whole(seat_id))
        redirect to, 303
      end

      post "/:id/questions/:slide/marks/released" do |id, slide_id|
        row, slide = asked(id, slide_id)
        Operations::MarkByHand.new.release(account_id, row.id, slide.id, params["released"] == "1")
        redirect marking_path(row, slide), 303
      end

      # The teacher's own list of stamps; the way back is to the question that she marks.
      post "/:id/questions/:slide/stamps" do |id, slide_id|
        row, slide = asked(id, slide_id)
        granted(stamps.keep(account_id, params["stamps"]))
        redirect marking_path(row, slide), 303
      end

      post "/:id/questions/:slide/markers" do |id, slide_id|
        row, slide = asked(id, slide_id)
        if number("out") then Operations::MarkSecond.new.ask_no_more(account_id, row.id, slide.id, number("out"))
        else granted(Operations::MarkSecond.new.ask(account_id, row.id, slide.id, text("email").to_s))
        end
        redirect "#{marking_path(row, slide)}#second-marker", 303
      end

      # What a colleague gave beside one's own.
      get "/:id/questions/:slide/marks/compared/:colleague" do |id, slide_id, colleague|
        row, slide = asked(id, slide_id)
        marker = Store::SecondMarks.new.markers(row.id, slide.id).find { |each| each.id == whole(colleague) } || not_found
        page("results/compared", title: "You and #{marker.name}", marker: marker, **compared(row, slide, marker))
      end

      helpers do
        def asked(id, slide_id)
          row = own_session(id)
          slide = Store::Sessions.new.lesson_of(row).slide(slide_id)
          slide&.prompt ? [row, slide] : not_found
        end

        def stamps = Operations::StampAnswers.new

        def undo(row, slide)
          before = Operations::StampAnswers::Before.new(marks: table("marks"), comments: table("comments"))
          granted(stamps.undo(account_id, row.id, slide.id, before))
          redirect marking_path(row, slide), 303
        end

        def marking_page(row, slide, undo: nil)
          kept = Store::HandMarks.new
          record = Store::Records.new.of(row)
          page("results/marking", title: "Mark #{slide.name}", undo: undo, released: kept.released(row.id).include?(slide.id),
                                  stamps: Store::Stamps.new.of(account_id),
                                  markers: Store::SecondMarks.new.markers(row.id, slide.id),
                                  **groups(row, slide, record, kept.written(row.id, slide.id)))
        end

        # @return [Hash] row, slide, rows of both marks (those that differ first), and how far they agree
        def compared(row, slide, marker)
          marking = Core::Analysis::Marking.new(Store::Records.new.of(row), slide)
          both = marking.beside(Store::HandMarks.new.written(row.id, slide.id),
                                Store::SecondMarks.new.of(row.id, slide.id, marker.id))
          { row: row, slide: slide, both: both, agreements: marking.agreements(both) }
        end
      end
    end
  end
end
