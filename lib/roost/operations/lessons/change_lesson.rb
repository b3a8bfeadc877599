# frozen_string_literal: true

module Roost
  module Operations
    # Changes a teacher's lesson: locks it, lets the block make the next lesson, saves
    # that with a revision. A lesson that is not hers is not there (nil).
    class ChangeLesson
      # @yieldparam lesson [Core::Lesson]
      # @yieldreturn [Core::Reading] of the next lesson
      # @return [Core::Reading, nil] of the saved Store::Lessons::Row
      def call(account_id, lesson_id)
        lessons = Store::Lessons.new
        lessons.transaction do
          row = lessons.find(account_id, lesson_id, lock: true)
          next nil if row.nil? || row.deleted

          yield(row.lesson).map do |lesson|
            lesson == row.lesson ? row : lessons.save(account_id, row, lesson, field: field(row.lesson, lesson))
          end
        end
      end

      private

      # The one field of the head that changed, or nil.
      def field(before, after)
        return nil unless before.slides == after.slides

        paths = Core::DocumentChanges.between(before.head, after.head).keys
        paths.one? ? ["head", *paths.first].join("/") : nil
      end
    end
  end
end
