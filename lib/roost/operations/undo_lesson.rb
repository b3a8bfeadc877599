# frozen_string_literal: true

module Roost
  module Operations
    # Brings the lesson back to before the last change; again, to before that. The
    # result is a revision of its own, so nothing is ever lost.
    class UndoLesson
      # @return [Core::Reading, nil] of the saved record
      def call(account_id, lesson_id)
        lessons = Store::Lessons.new
        lessons.transaction do
          record = lessons.find(account_id, lesson_id, lock: true)
          next nil if record.nil? || record.deleted

          number, lesson = lessons.before(record)
          next Core::Reading.refused("There is nothing more to undo.") unless lesson

          Core::Reading.ok(lessons.save(account_id, record, raised(record.lesson, lesson), restored_from: number))
        end
      end

      private

      # A slide that comes back with other content gets a rev nobody has seen, so that
      # an editor who still shows the undone one cannot save over it unawares.
      def raised(present, earlier)
        slides = earlier.slides.map do |slide|
          now = present.slide(slide.id)
          now && now != slide ? slide.with(rev: [now.rev, slide.rev].max + 1) : slide
        end
        Core::Lesson.new(title: earlier.title, slides: slides)
      end
    end
  end
end
