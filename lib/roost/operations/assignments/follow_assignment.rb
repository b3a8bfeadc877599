# frozen_string_literal: true

module Roost
  module Operations
    # Progress with an assignment.
    class FollowAssignment
      # @param row [Store::Sessions::Row]
      # @return [Core::Analysis::Progress]
      def call(row)
        sittings = Store::Sittings.new
        by_seat = sittings.of(row.id, "").group_by(&:seat_id).transform_values { |all| all.map(&:sitting) }
        lesson = Store::Sessions.new.lesson_of(row)
        assignment = Store::Assignments.new.find(row.id)
        asked = lambda do |student_id|
          [assignment.slides(lesson, student_id).count(&:prompt), assignment.rules["draw"]].compact.min
        end
        Core::Analysis::Progress.new(Store::Records.new.of(row), sittings: by_seat, spent: sittings.spent(row.id, "", row.now),
                                                                 asked: asked, now: row.now)
      end
    end
  end
end
