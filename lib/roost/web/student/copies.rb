# frozen_string_literal: true

module Roost
  module Web
    # A student's own copy of a session, at an address that leads nowhere else: whoever has it can look, and do nothing.
    class Copies < App
      NONE = "There is no copy of this lesson: it is still on, or your teacher keeps it."
      # What no slide is called, so that the name of a copy is that of nothing that was given.
      OWN = " own copy"

      # @return [String] the address of a seat's copy
      def self.path(seat_id) = "/copy/#{Given.seal.close(seat_id, OWN)}"

      get "/:name" do |name|
        opened = Given.seal.open(name)
        not_found unless opened&.on?(OWN)
        row = Store::Sessions.new.of_seat(opened.seat_id) || not_found
        seat = Store::Seats.new.of(row.id, seat_id: opened.seat_id).first || not_found
        copy = Operations::OwnCopy.new.call(row, seat.id)
        halt 404, error_page("No copy", NONE) unless copy
        page("copy/show", title: "#{row.title}: your copy", layout: "layouts/plain", bundle: "seat", copy: copy, seat_id: seat.id,
                          name: seat.name, theme: Store::Sessions.new.lesson_of(row).details.theme,
                          link: "#{Roost.settings.base_url}#{Copies.path(seat.id)}")
      end
    end
  end
end
