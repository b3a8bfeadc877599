# frozen_string_literal: true

module Roost
  module Operations
    # Notes that a teacher has a slide of a lesson before her, so that others see who is at work on it.
    class NoteEditor
      # Of a lesson that she may not edit nothing is noted.
      def call(account_id, lesson_id, slide_id)
        Store::Sharing.new.at_work(lesson_id, account_id, slide_id) if Store::Lessons.new.find(account_id, lesson_id)
      end
    end
  end
end
