# frozen_string_literal: true

module Roost
  module Operations
    # What a student was given to do alone, and how far they are with it.
    class OwnTasks
      # stage:: :coming, :to_do, :begun, :done or :over (not done, and no time is left)
      # answered, asked:: how many questions; ends_at:: for this student (epoch seconds); told:: how many of them were right
      # (Rational), where that may be told
      Own = Struct.new(:row, :stage, :answered, :asked, :ends_at, :opens_at, :told, keyword_init: true)

      # @param student [Core::Student]
      # @return [Array<Own>] what closes first in front
      def call(student)
        given = EnterByPass.new.assigned(student)
        seats = Store::Seats.new.of_student(student.id, given.map { |row, _| row.id })
        given.map { |row, _assignment| own(row, seats[row.id]) }
      end

      private

      def own(row, seat_id)
        lesson = Store::Sessions.new.lesson_of(row)
        task = TakeSitting.task(row, seat_id.to_i, lesson: lesson)
        kept = seat_id && Store::Sittings.new.latest_of_seat(seat_id)
        about = { row: row, asked: task.asked.length, answered: 0, ends_at: task.ends_at, opens_at: task.opens_at }
        return Own.new(**about, stage: stage_without(task, row.now)).freeze unless kept

        Own.new(**about, **so_far(row, lesson, kept, seat_id), stage: stage(kept.sitting, row.now),
                                                               told: told(row, lesson, task, kept, seat_id)).freeze
      end

      def stage_without(task, now)
        return :coming if now < task.opens_at

        task.open ? :to_do : :over
      end

      def stage(sitting, now)
        return :done if sitting.handed_in_at

        sitting.over?(now) ? :over : :begun
      end

      def so_far(row, lesson, kept, seat_id)
        sitting = kept.sitting
        answers = Store::Answers.new.of(row.id, seat_id: seat_id).map(&:last).select { |each| each.attempt == sitting.attempt }
        answered = TakeSitting.answered(lesson, sitting, answers.to_h { |each| [each.slide_id, each] })
        asked = sitting.slides.select { |id| lesson.slide(id)&.prompt }
        { answered: (answered & asked).length, asked: asked.length }
      end

      # Right and wrong as its rules tell them.
      def told(row, lesson, task, kept, seat_id)
        return nil unless OwnCopy.told?(row, seat_id)

        record = Store::Records.new.at_seat(row, seat_id)
        marks = lesson.prompts.filter_map { |slide| record.outcome(slide.id, seat_id).mark }
        return nil if marks.empty?

        record.shares[seat_id] ? record.shares[seat_id] * marks.length : marks.sum
      end
    end
  end
end
