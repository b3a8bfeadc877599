# frozen_string_literal: true

module Roost
  module Operations
    # Starts a session of a lesson: freezes a copy, so that later edits never touch it.
    class StartSession
      TITLE_LIMIT = 120
      CLASS_LIMIT = 60

      # @param form [Hash] "title", "class_name" and the options
      # @return [Core::Reading, nil] of a Store::Sessions::Row; nil without such a lesson
      def call(account_id, lesson_id, form)
        row = Store::Lessons.new.look(account_id, lesson_id)
        return nil unless row
        if row.lesson.class_slides.empty?
          return Core::Reading.refused("This lesson has no slides for the class. Add one, then start.")
        end

        read(form, "title", TITLE_LIMIT, "The title").and_then do |title|
          read(form, "class_name", CLASS_LIMIT, "The class").map do |class_name|
            Store::Sessions.new.create(
              account_id: account_id, lesson_id: lesson_id, lesson: row.lesson.settled, class_name: class_name,
              title: title.empty? ? row.lesson.title : title, options: Core::Session::Options.read(form)
            )
          end
        end
      end

      private

      def read(form, field, limit, what) = Core::Text.read(form[field], limit: limit, what: what, lines: false)
    end
  end
end
