# frozen_string_literal: true

module Roost
  module Operations
    # Keeps questions of a lesson in a teacher's bank, as copies.
    class KeepInBank
      NONE = "There is no question on what you chose. Give the slide one first."

      # @param slide_ids [Array<String>]
      # @return [Core::Reading, nil] of how many were kept; nil without such a lesson
      def call(account_id, lesson_id, slide_ids)
        row = Store::Lessons.new.find(account_id, lesson_id)
        return nil unless row

        slides = row.lesson.prompts.select { |slide| slide_ids.include?(slide.id) }
        return Core::Reading.refused(NONE) if slides.empty?

        Store::Bank.new.keep(account_id, slides, taken_from: row.lesson.title)
        Core::Reading.ok(slides.length)
      end
    end
  end
end
