# frozen_string_literal: true

module Roost
  module Operations
    # Deletes a teacher's own lesson, or brings it back while that can be done.
    class DeleteLesson
      # @return [Boolean] whether it is hers
      def call(account_id, lesson_id, deleted: true) = Store::Lessons.new.mark_deleted(account_id, lesson_id, deleted)
    end
  end
end
