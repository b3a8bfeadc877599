# frozen_string_literal: true

module Roost
  module Operations
    # Saves one slide from the builder. Refused when somebody saved a newer version of
    # this slide meanwhile, so that nobody's work is overwritten.
    class EditSlide
      NEWER = "This slide was changed somewhere else. Your text is still here: copy what you need, then reload."
      GONE = "This slide is no longer in the lesson. Undo, or reload the page."

      # @param rev [Integer] the slide's rev that the editor was looking at
      # @yieldparam slide [Core::Slide]
      # @yieldreturn [Core::Reading] of the changed slide
      # @return [Core::Reading, nil] of the saved record; nil when there is no such lesson
      def call(account_id, lesson_id, slide_id, rev:)
        ChangeLesson.new.call(account_id, lesson_id) do |lesson|
          slide = lesson.slide(slide_id)
          next Core::Reading.refused(GONE) unless slide
          next Core::Reading.refused(NEWER) unless slide.rev == rev

          yield(slide).map { |changed| changed == slide ? lesson : lesson.replacing(changed.with(rev: rev + 1)) }
        end
      end
    end
  end
end
