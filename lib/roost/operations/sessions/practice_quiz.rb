# frozen_string_literal: true

module Roost
  module Operations
    # The practice class in a quiz: each goes through it slide by slide, answers or leaves out, and hands in. Where each is
    # is a function of the time since it was opened.
    class PracticeQuiz
      # Seconds a slide takes that asks nothing.
      READING = 4

      # @param row [Store::Sessions::Row]
      # @param lesson [Core::Lesson]
      # @param quiz [Core::Section] that is open
      def initialize(row, lesson, quiz)
        @row = row
        @lesson = lesson
        @quiz = quiz
      end

      # @param pupils [Array<Core::Session::Seat>]
      # @return [Boolean] whether anybody did anything
      def carry_on(pupils)
        students = Core::Practice::Roster.students(pupils.length, seed: row.id)
        begun = Store::Sittings.new.of(row.id, @quiz.id).to_h { |kept| [kept.seat_id, kept.sitting] }
        moved = pupils.zip(students).each_with_index.map do |(seat, student), number|
          sitting = begun[seat.id]
          sitting&.over?(row.now) ? false : moves?(seat, student, number, sitting)
        end
        moved.any?
      end

      private

      attr_reader :row, :lesson

      # @return [Boolean] whether the student did something
      def moves?(seat, student, number, sitting)
        device = { id: seat.id, session_id: row.id }
        taken = TakeSitting.new.call(device, row) unless sitting
        sitting ||= taken&.sitting
        return false unless sitting

        passed = passed(sitting, student, number)
        return !taken.nil? if passed < sitting.place

        answer(seat, student, number, sitting.slides[(sitting.place - 1)...passed])
        taken = TakeSitting.new.call(device, row, to: passed + 1)
        HandInSitting.new.call(device, taken) if passed == sitting.slides.length
        true
      end

      # @return [Integer] how many slides lie behind
      def passed(sitting, student, number)
        left = row.now - sitting.started_at
        sitting.slides.take_while { |id| (left -= seconds(lesson.slide(id), student, number)) >= 0 }.length
      end

      def seconds(slide, student, number)
        slide.prompt ? plan(slide, student, number).seconds : READING
      end

      def plan(slide, student, number) = Core::Practice::Plan.of(student, number, slide.prompt, seed: row.id)

      def answer(seat, student, number, slide_ids)
        slide_ids.map { |id| lesson.slide(id) }.select(&:prompt).each do |slide|
          plan = plan(slide, student, number)
          PracticeClass.save(row, seat, slide, plan.value) unless plan.skips
        end
      end
    end
  end
end
