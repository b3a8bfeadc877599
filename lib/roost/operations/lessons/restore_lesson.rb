# frozen_string_literal: true

module Roost
  module Operations
    # Brings a lesson back to how an earlier save had left it. That is a change like any
    # other: it can be undone.
    class RestoreLesson
      # @param number [Integer] of the revision
      # @return [Core::Reading, nil] of the saved lesson
      def call(account_id, lesson_id, number)
        lessons = Store::Lessons.new
        lessons.transaction do
          row = lessons.find(account_id, lesson_id, lock: true)
          next nil if row.nil? || row.deleted

          revisions = Store::Revisions.new
          earlier = number && revisions.find(lesson_id, number) && revisions.lesson(lesson_id, number)
          next Core::Reading.refused("That version isn't kept. Choose another.") unless earlier

          Core::Reading.ok(lessons.save(account_id, row, raised(row.lesson, earlier), restored_from: number))
        end
      end

      private

      # What comes back gets revs nobody has seen (UndoLesson).
      def raised(present, earlier)
        earlier.with(slides: earlier.slides.map do |slide|
          now = present.slide(slide.id)
          now && now != slide ? slide.with(rev: [now.rev, slide.rev].max + 1) : slide
        end)
      end
    end
  end
end
