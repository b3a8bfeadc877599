# frozen_string_literal: true

module Roost
  module Operations
    # What a student may answer just now: the question that is open to all, or those of the quiz or the assignment they
    # are at work in.
    module OpenToSeat
      # @param seat [Hash] :id
      # @param row [Store::Sessions::Row] of its session
      # @return [Array<Core::Slide>] with questions
      def self.slides(seat, row)
        lesson = Store::Sessions.new.lesson_of(row)
        ids(seat, row, lesson).filter_map { |id| lesson.slide(id) }.select(&:prompt)
      end

      def self.ids(seat, row, lesson)
        return of_sitting(seat, row) if row.self_paced
        return [] unless row.state.open?

        lesson.quiz(row.state.slide_id) ? of_sitting(seat, row) : [row.state.slide_id]
      end

      def self.of_sitting(seat, row)
        sitting = Store::Sittings.new.latest_of_seat(seat[:id])&.sitting
        sitting ? sitting.slides.select { |id| sitting.cover?(row.now, id) } : []
      end
      private_class_method :ids, :of_sitting
    end
  end
end
