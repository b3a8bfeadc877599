# frozen_string_literal: true

module Roost
  module Operations
    # Moves slides from one lesson of a teacher's to the end of another, in one
    # transaction: they are in one of them whatever happens. Undone in one, it is undone in both.
    class MoveSlides
      # @return [Core::Reading, nil] of the ids the slides have now; nil without the first lesson
      def call(account_id, from_id, to_id, slide_ids)
        return Core::Reading.refused("Choose another lesson to move them to.") if to_id.nil? || to_id == from_id

        lessons = Store::Lessons.new
        lessons.transaction do
          # Always locked in the same order, so that two moves never wait for each other.
          rows = [from_id, to_id].sort.to_h { |id| [id, lessons.find(account_id, id, lock: true)] }
          from, to = rows.values_at(from_id, to_id)
          next nil if from.nil? || from.deleted
          next Core::Reading.refused("That lesson isn't there any more. Choose another.") if to.nil? || to.deleted

          move(account_id, from, to, slide_ids)
        end
      end

      private

      def move(account_id, from, to, slide_ids)
        moved = from.lesson.slides.select { |slide| slide_ids.include?(slide.id) }
        return Core::Reading.refused(EditSlide::GONE) if moved.empty?

        taken = to.lesson.slides.map(&:id)
        placed = moved.map { |slide| taken.include?(slide.id) ? slide.copy("#{slide.id}m#{to.revision}") : slide }
        to.lesson.adding(placed, after: nil).map do |filled|
          lessons = Store::Lessons.new
          halves = { from => to, to => from }.transform_values do |other|
            { "lesson" => other.id, "number" => other.revision + 1 }
          end
          lessons.save(account_id, from, from.lesson.without_slides(moved.map(&:id)), moved: halves[from])
          lessons.save(account_id, to, filled, moved: halves[to])
          placed.map(&:id)
        end
      end
    end
  end
end
