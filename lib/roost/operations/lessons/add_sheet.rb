# frozen_string_literal: true

module Roost
  module Operations
    # Adds the questions of a sheet that a teacher has looked at, in one change, and once: a
    # second click finds the sheet gone. When they can't be added it waits on.
    class AddSheet
      GONE = "That sheet isn't waiting here any more. Look at the lesson, or choose the sheet again."
      NOTHING = "No row of that sheet can be used."

      # @param sheet [Exchange::QuestionSheet]
      # @param ticket [String] of Store::PendingUploads
      # @param after [String, nil] id of the slide they come after
      # @param mark [String] begins the ids of the new slides
      # @return [Core::Reading, nil] of the slides; nil when there is no such lesson
      def call(account_id, lesson_id, ticket, sheet:, after:, mark:)
        known = true
        taken = Store::PendingUploads.new.take(account_id, ticket) do |path|
          usable(sheet, path, mark).and_then do |slides|
            saved = ChangeLesson.new.call(account_id, lesson_id) { |lesson| lesson.bringing_in(slides, after: after) }
            known = !saved.nil?
            saved ? saved.map { slides } : Core::Reading.refused(GONE)
          end
        end
        known ? taken || Core::Reading.refused(GONE) : nil
      end

      private

      def usable(sheet, path, mark)
        sheet.read(path, mark: mark).and_then do |found|
          found.usable.empty? ? Core::Reading.refused(NOTHING) : Core::Reading.ok(found.usable)
        end
      end
    end
  end
end
