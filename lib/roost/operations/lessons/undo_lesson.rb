# frozen_string_literal: true

module Roost
  module Operations
    # Takes back this teacher's last step, and again the one before; or does again what was undone.
    # Only what that step touched goes back: what a colleague has done meanwhile stays, and where she
    # has worked on the same, nothing is undone. A move between lessons is undone in both. The result
    # is a revision of its own, so nothing is ever lost.
    class UndoLesson
      NOTHING = { undo: "There is nothing more to undo.", redo: "There is nothing to redo." }.freeze
      CHANGED = "%s has changed this since. Open the history to go back further."
      MOVED = "These slides were moved between this lesson and another, where they have changed since or can't be reached. " \
              "Move them by hand."

      # What is to be saved of one lesson.
      Turn = Struct.new(:row, :step, :lesson, keyword_init: true)

      # @param way [Symbol] :undo or :redo
      # @return [Core::Reading, nil] of the saved lesson
      def call(account_id, lesson_id, way = :undo)
        @account_id = account_id
        lessons = Store::Lessons.new
        lessons.transaction do
          step = step(account_id, lesson_id, way)
          other_id = step&.moved&.fetch("lesson")
          # Always locked in the same order, so that two never wait for each other.
          rows = [lesson_id, *other_id].sort.to_h { |id| [id, lessons.find(account_id, id, lock: true)] }
          row = rows[lesson_id]
          next nil if row.nil? || row.deleted
          next Core::Reading.refused(NOTHING.fetch(way)) unless step
          next Core::Reading.refused(MOVED) unless step == step(account_id, lesson_id, way)

          turns(row, step, rows[other_id], way).map { |all| save(lessons, account_id, all, way) }
        end
      end

      private

      def revisions = Store::Revisions.new

      def step(account_id, lesson_id, way)
        way == :undo ? revisions.to_undo(account_id, lesson_id) : revisions.to_redo(account_id, lesson_id)
      end

      # @return [Core::Reading] of [Turn], one a lesson
      def turns(row, step, other, way)
        own = turned(row, step, way)
        return own.map { |turn| [turn] } unless step.moved

        theirs = other && !other.deleted && revisions.step_of(other.id, step.moved.fetch("number"))
        second = theirs ? turned(other, theirs, way) : own
        own.ok? && theirs && second.ok? ? Core::Reading.ok([own.value, second.value]) : Core::Reading.refused(MOVED)
      end

      def save(lessons, account_id, turns, way)
        turns.map do |turn|
          lessons.save(account_id, turn.row, turn.lesson, (way == :undo ? :undoes : :redoes) => turn.step.first)
        end.first
      end

      # @return [Core::Reading] of Turn: the present lesson with one step taken back, or done again
      def turned(row, step, way)
        states = [step.last, step.first - 1].map { |number| revisions.lesson(row.id, number) }
        from, to = way == :undo ? states : states.reverse
        stale = step.slides.find { |id| !same?(row.lesson.slide(id), from.slide(id)) }
        stale ||= :head if step.head && !same_head?(row.lesson, from)
        return Core::Reading.refused(format(CHANGED, author(row.id, stale, step.last))) if stale

        lesson = step.head ? with_head(row.lesson, step, to) : with_slides(row.lesson, step, to)
        Core::Reading.ok(Turn.new(row: row, step: step, lesson: lesson).freeze)
      end

      def with_slides(present, step, state)
        present.with(slides: present.slides.map { |slide| step.slides.include?(slide.id) ? back(slide, state) : slide })
      end

      def with_head(present, step, state)
        slides = state.slides.map do |slide|
          now = present.slide(slide.id)
          now && !step.slides.include?(slide.id) ? now : back(now || slide, state)
        end
        state.with(slides: slides)
      end

      # A slide that comes back with other content gets a rev nobody has seen, so that an
      # editor who still shows the undone one cannot save over it unawares.
      def back(now, state)
        earlier = state.slide(now.id)
        same?(now, earlier) ? now : earlier.with(rev: [now.rev, earlier.rev].max + 1)
      end

      def same?(one, other) = one == other || (one && other && one.with(rev: 0) == other.with(rev: 0))

      def same_head?(one, other) = one.head == other.head && one.slides.map(&:id) == other.slides.map(&:id)

      # The colleague who has changed a slide, or the order of them, since a revision.
      def author(lesson_id, what, number)
        revisions.colleague_after(lesson_id, what, number, @account_id) || "Another step of yours, or one of a colleague,"
      end
    end
  end
end
