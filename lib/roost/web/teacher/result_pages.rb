# frozen_string_literal: true

module Roost
  module Web
    # What the pages of a session's results share.
    module ResultPages
      # Whether the teacher's pen has left anything.
      def drawn?(row) = Store::Ink.new.pages(row.id).any?

      def sessions = Store::Sessions.new

      # One student's results as PDF: how far it is, or the way to it.
      # @return [String] HTML
      def seat_part(row, seat_id)
        export_part("seat_pdf", seat_id, path: "/results/#{row.id}/students/#{seat_id}/pdf", made: "PDF")
      end

      # @return [Core::Slide] whose question can have a key
      def question(row, slide_id)
        slide = sessions.lesson_of(row).slide(slide_id)
        not_found unless slide&.prompt
        slide.prompt.class.keyable? ? slide : not_found
      end
    end
  end
end
