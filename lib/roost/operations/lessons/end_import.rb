# frozen_string_literal: true

module Roost
  module Operations
    # Stops a file of slides that is coming into a lesson; the pages that are here stay, or are taken out
    # again in one change. Or does no longer tell of one that has ended.
    class EndImport
      # @param out [Boolean] whether its slides are taken out
      # @param told [Boolean] whether the lesson goes on telling of it
      # @return [Core::Reading, nil] of the Store::Imports::Row; nil when it isn't this lesson's, or the
      #   lesson isn't hers to edit
      def call(account_id, lesson_id, import_id, out: false, told: false)
        imports = Store::Imports.new
        import = Store::Lessons.new.find(account_id, lesson_id) && imports.find(import_id)
        return nil unless import && import.lesson_id == lesson_id

        imports.update(import.id, state: "stopped") if import.coming?
        reading = out ? without(account_id, import) : Core::Reading.ok(import)
        imports.dismiss(import.id) if reading&.ok? && !told
        reading
      end

      private

      def without(account_id, import)
        saved = ChangeLesson.new.call(account_id, import.lesson_id) do |lesson|
          Core::Reading.ok(lesson.without_slides(import.slide_ids))
        end
        saved&.map { import }
      end
    end
  end
end
