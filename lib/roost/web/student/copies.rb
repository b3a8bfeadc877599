# frozen_string_literal: true

module Roost
  module Web
    # A student's own copy of a session, at an address that leads nowhere else: whoever has it can look, and do nothing.
    class Copies < App
      NONE = "There is no copy of this lesson: it is still running, or your teacher doesn't share copies."
      BUSY = "Many copies are being made at the moment. Try again in a minute, or print the page."
      # What no slide is called, so that the name of a copy is that of nothing that was given.
      OWN = " own copy"

      # @return [String] the address of a seat's copy
      def self.path(seat_id) = "/copy/#{AnswerPictures.ids.encode(seat_id, OWN)}"

      get "/:name.pdf" do |name|
        seat, copy = found(name)
        pdf = Operations::CopyAsPdf.new.call(copy, about: about(copy, seat.name), drawings: drawings(copy))
        halt 503, error_page("Please wait", BUSY) unless pdf
        content_type "application/pdf"
        attachment "#{file_name(copy.row.title)}.pdf"
        pdf
      end

      get "/:name" do |name|
        seat, copy = found(name)
        page("copy/show", title: "#{copy.row.title}: your copy", layout: "layouts/plain", bundle: "seat", copy: copy,
                          seat_id: seat.id, about: about(copy, seat.name), path: Copies.path(seat.id),
                          theme: Store::Sessions.new.lesson_of(copy.row).details.theme)
      end

      helpers do
        # @return [Array(Core::Session::Seat, Operations::OwnCopy::Copy)]
        def found(name)
          opened = AnswerPictures.ids.decode(name)
          not_found unless opened&.on?(OWN)
          row = Store::Sessions.new.of_seat(opened.seat_id) || not_found
          seat = Store::Seats.new.of(row.id, seat_id: opened.seat_id).first || not_found
          [seat, Operations::OwnCopy.new.call(row, seat.id) || halt(404, error_page("No copy", NONE))]
        end

        # Whose it is, of when, and how it went, in a line.
        def about(copy, name)
          right = "#{percent(copy.share)} right" if copy.share
          [name, copy.row.class_name, date(copy.row.created_at), right].compact.reject(&:empty?).join(" · ")
        end

        # @return [Hash{String=>String}] slide id to the answer as SVG, where it is a picture
        def drawings(copy)
          pictures = copy.pages.select do |page|
            page.slide.prompt && page.outcome.answer&.readable? && kind_view?(page.slide.prompt, "picture")
          end
          pictures.to_h { |page| [page.slide.id, drawing(page.slide, page.outcome.answer.value)] }
        end

        def drawing(slide, value)
          under = slide.prompt.uses_picture? ? slide.picture : nil
          Operations::DrawAnswer.new.call(drawn(slide.prompt, value, under: under), "svg", picture: under).file
        end
      end
    end
  end
end
