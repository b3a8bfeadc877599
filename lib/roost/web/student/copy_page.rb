# frozen_string_literal: true

module Roost
  module Web
    # A student's own copy of a session, by their seat or their pass.
    module CopyPage
      NONE = "There is no copy of this lesson: it is still on, or your teacher keeps it."

      # @param row [Store::Sessions::Row]
      # @param name [String] of the student
      def copy_page(row, seat_id, name)
        copy = Operations::OwnCopy.new.call(row, seat_id)
        halt 404, error_page("No copy", NONE) unless copy
        page("copy/show", title: "#{row.title}: your copy", layout: "layouts/plain", bundle: "seat", copy: copy, seat_id: seat_id,
                          name: name, theme: Store::Sessions.new.lesson_of(row).details.theme)
      end
    end
  end
end
