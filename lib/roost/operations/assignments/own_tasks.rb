# frozen_string_literal: true

module Roost
  module Operations
    # What a student was given to do alone, and how far they are with it.
    class OwnTasks
      # stage:: :coming, :to_do, :begun, :done or :over (not done, and no time is left)
      # answered, asked:: how many questions; ends_at:: for this student (epoch seconds); another:: whether an attempt is left
      # told, marked:: how many of them were right (Rational), of how many with a key, where that may be told
      Own = Struct.new(:row, :stage, :answered, :asked, :ends_at, :opens_at, :another, :told, :marked, keyword_init: true)

      # @param student [Core::Student]
      # @return [Array<Own>] what closes first in front
      def call(student)
        given = EnterByPass.new.assigned(student)
        seats = Store::Seats.new.of_student(student.id, given.map { |row, _| row.id })
        given.map { |row, assignment| own(row, assignment, student, seats[row.id]) }
      end

      private

      def own(row, assignment, student, seat_id)
        lesson = Store::Sessions.new.lesson_of(row)
        task = task(row, assignment, student, seat_id, lesson)
        kept = seat_id && Store::Sittings.new.latest_of_seat(seat_id)
        about = { row: row, asked: task.to_answer, answered: 0, ends_at: task.ends_at, opens_at: task.opens_at }
        return Own.new(**about, stage: stage_without(task, row.now)).freeze unless kept

        done = { **so_far(row, lesson, kept, seat_id), **told(row, seat_id) }
        Own.new(**about, **done, stage: stage(kept.sitting, row.now), another: task.another?(kept.sitting.attempt)).freeze
      end

      def task(row, assignment, student, seat_id, lesson)
        return TakeSitting.task(row, seat_id, lesson: lesson) if seat_id

        Core::Session::Task.of_assignment(lesson, assignment, title: row.title, now: row.now, student_id: student.id,
                                                              allowance: { closes_at: nil, attempts: 0 })
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
      # @return [Hash] of :told and :marked
      def told(row, seat_id)
        return {} unless OwnCopy.told?(row, seat_id)

        record = Store::Records.new.for_students(row, seat_id: seat_id)
        line = Core::Analysis::Results.new(record).line_of(seat_id)
        line.marked.zero? ? {} : { told: line.share * line.marked, marked: line.marked }
      end
    end
  end
end
