# frozen_string_literal: true

module Roost
  module Operations
    # How a round that a student plays alone stands against their last attempt at it, here or in another session of the
    # lesson; without one, against the class's median here.
    class OwnRound
      FRESH = 30 # seconds for which a median is told again
      @medians = Core::LruCache.new(500)

      class << self
        attr_reader :medians
      end

      # @param seat [Hash] :id
      # @param row [Store::Sessions::Row] of its session
      # @param taken [TakeSitting::Taken]
      # @param told [Hash{Core::Slide=>Rational}] mark of every question of theirs that was told so far, in order
      # @return [Core::Game::Comparison, nil] nil where no round is played, or nothing of it was told
      def call(seat, row, taken, told)
        now = told.select { |slide, _| taken.lesson.game?(slide.id) }
                  .to_h { |slide, mark| [slide, Core::Game::Comparison.earned(slide.prompt, mark)] }
        return nil if now.empty?

        Core::Game::Comparison.new(now, earlier(seat, row, taken)) { |slide_id| median(row, seat[:id], slide_id) }
      end

      private

      def earlier(seat, row, taken)
        here = taken.sitting.attempt > 1 ? attempts_here(seat, row, taken) : []
        here.any? ? here : elsewhere(seat, row, taken.lesson)
      end

      # Of this seat, before this attempt. What was not answered earned nothing.
      def attempts_here(seat, row, taken)
        answers = Store::Answers.new.by_question(row.id, seat_id: seat[:id])
        before = Store::Sittings.new.of_seat(seat[:id], taken.kept.section_id).map(&:sitting)
        before.select { |each| each.attempt < taken.sitting.attempt }.map do |sitting|
          played(taken.lesson, sitting.slides) { |slide| scored(slide, answers.dig([slide.id, sitting.attempt], seat[:id])) }
        end
      end

      # Of this student, in sessions of the same lesson of which they were told how it went.
      def elsewhere(seat, row, lesson)
        student_id = Store::Seats.new.student(seat[:id])
        return [] unless student_id && row.lesson_id

        sessions = Store::PastSessions.new.of_student_and_lesson(student_id, row.lesson_id)
        told = sessions.select { |other, seat_id| other.id != row.id && OwnCopy.over?(other, seat_id) }
        told.map { |other, seat_id| played_there(other, seat_id, lesson) }.reject(&:empty?)
      end

      def played_there(row, seat_id, lesson)
        record = Store::Records.new.at_seat(row, seat_id)
        same = record.asked_of(seat_id).select { |slide| lesson.slide(slide.id)&.prompt&.id == slide.prompt.id }
        played(lesson, same.map(&:id)) do |slide|
          Core::Game::Comparison.earned(slide.prompt, record.outcome(slide.id, seat_id).mark || 0r)
        end
      end

      # What was not answered earned nothing.
      # @return [Integer]
      def scored(slide, answer)
        Core::Session::Scoring.new(slide, style: Core::Game::Styles::Steady.new).outcome(answer, 0.0).points
      end

      # @yieldreturn [Integer] the points a question earned
      # @return [Hash{String=>Integer}] slide id to points
      def played(lesson, slide_ids)
        slide_ids.select { |id| lesson.game?(id) }.to_h { |id| [id, yield(lesson.slide(id))] }
      end

      def median(row, seat_id, slide_id)
        points = OwnRound.medians.fetch([row.id, slide_id, (row.now / FRESH).floor]) { points_of_all(row, slide_id) }
        Core::Game::Comparison.median(points.except(seat_id).values)
      end

      # @return [Hash{Integer=>Integer}] seat id to points, of all who answered
      def points_of_all(row, slide_id)
        record = Store::Records.new.at_slide(row, slide_id)
        slide = record.lesson.slide(slide_id)
        record.given(slide_id).transform_values { |answer| scored(slide, answer) }
      end
    end
  end
end
