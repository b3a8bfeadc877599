# frozen_string_literal: true

module Roost
  module Operations
    # Saves one slide from the builder. Reads and writes that slide only, so that it costs
    # the same in a long lesson. Refused when somebody saved a newer version of this slide
    # meanwhile, so that nobody's work is overwritten.
    class EditSlide
      NEWER = "%s changed this slide meanwhile. Your text is still here: copy what you need, then reload."
      GONE = "This slide is no longer in the lesson. Undo, or reload the page."

      # head:: Store::Lessons::Head after the save; slide:: Core::Slide as it is now
      Saved = Struct.new(:head, :slide, keyword_init: true)

      # @param rev [Integer] the slide's rev that the editor was looking at
      # @yieldparam slide [Core::Slide]
      # @yieldreturn [Core::Reading] of the changed slide
      # @return [Core::Reading, nil] of Saved; nil when there is no such lesson
      def call(account_id, lesson_id, slide_id, rev:)
        lessons = Store::Lessons.new
        lessons.transaction do
          head = lessons.head(account_id, lesson_id, lock: true)
          next nil if head.nil? || head.deleted

          slide = lessons.slide(lesson_id, slide_id)
          next Core::Reading.refused(GONE) unless slide
          next Core::Reading.refused(format(NEWER, author(account_id, lesson_id, slide_id))) unless slide.rev == rev

          yield(slide).map do |changed|
            next Saved.new(head: head, slide: slide).freeze if changed == slide

            kept = changed.with(rev: rev + 1)
            Saved.new(head: lessons.save_slide(account_id, head, kept), slide: kept).freeze
          end
        end
      end

      private

      def author(account_id, lesson_id, slide_id)
        last = Store::Revisions.new.last_change(lesson_id, slide_id)
        return "Somebody" unless last&.author

        last.account_id == account_id ? "Another window of yours" : last.author
      end
    end
  end
end
