# frozen_string_literal: true

module Roost
  module Operations
    # Makes a teacher a copy of a lesson she may look at, to be her own.
    class CopyLesson
      LONGEST = 112 # characters of a title that "(copy)" goes behind

      # @return [Integer, nil] id of the copy; nil without such a lesson
      def call(account_id, lesson_id)
        row = Store::Lessons.new.look(account_id, lesson_id)
        return nil unless row

        title = row.lesson.title
        own = Store::Catalogue.new.entry(account_id, lesson_id)&.role == :owner
        CreateLesson.new.call(account_id, row.lesson.renamed(own ? "#{title[0, LONGEST]} (copy)" : title))
      end
    end
  end
end
