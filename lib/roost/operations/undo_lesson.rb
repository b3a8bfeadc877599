# frozen_string_literal: true

module Roost
  module Operations
    # Takes back this teacher's last change, and again the one before. Only what that
    # change touched goes back: what a colleague has done meanwhile stays, and where she
    # has worked on the same, nothing is undone. The result is a revision of its own, so
    # nothing is ever lost.
    class UndoLesson
      NOTHING = "There is nothing more to undo."
      CHANGED = "%s has changed this since. Look into the history to go back further."

      # @return [Core::Reading, nil] of the saved record
      def call(account_id, lesson_id)
        lessons = Store::Lessons.new
        lessons.transaction do
          record = lessons.find(account_id, lesson_id, lock: true)
          next nil if record.nil? || record.deleted

          change = revisions.last_of(account_id, lesson_id)
          next Core::Reading.refused(NOTHING) unless change

          without(record, change).map { |lesson| lessons.save(account_id, record, lesson, undoes: change.number) }
        end
      end

      private

      def revisions = Store::Revisions.new

      # @return [Core::Reading] of the present lesson with one change taken back
      def without(record, change)
        before = revisions.lesson(record.id, change.number - 1)
        after = revisions.lesson(record.id, change.number)
        stale = change.slides.keys.find { |id| !same?(record.lesson.slide(id), after.slide(id)) }
        return Core::Reading.refused(format(CHANGED, author(record.id, stale))) if stale
        return Core::Reading.refused(format(CHANGED, "Somebody")) if change.head && !same_head?(record.lesson, after)

        Core::Reading.ok(change.head ? with_head(record.lesson, change, before) : with_slides(record.lesson, change, before))
      end

      def with_slides(present, change, before)
        present.with(slides: present.slides.map { |slide| change.slides.key?(slide.id) ? back(slide, before) : slide })
      end

      def with_head(present, change, before)
        slides = before.slides.map do |slide|
          now = present.slide(slide.id)
          now && !change.slides.key?(slide.id) ? now : back(now || slide, before)
        end
        before.with(slides: slides)
      end

      # A slide that comes back with other content gets a rev nobody has seen, so that an
      # editor who still shows the undone one cannot save over it unawares.
      def back(now, before)
        earlier = before.slide(now.id)
        same?(now, earlier) ? now : earlier.with(rev: [now.rev, earlier.rev].max + 1)
      end

      def same?(one, other) = one == other || (one && other && one.with(rev: 0) == other.with(rev: 0))

      def same_head?(one, other) = one.head == other.head && one.slides.map(&:id) == other.slides.map(&:id)

      def author(lesson_id, slide_id) = revisions.last_change(lesson_id, slide_id)&.author || "Somebody"
    end
  end
end
