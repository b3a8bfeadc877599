# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # What each student of the class missed in a session: who was absent, or below the line, with the questions they did
      # not reach or did not get right (rules.md, catch-up).
      class CatchUp
        LINE = 4/5r

        # share:: their mean mark, nil where nothing of theirs was marked; absent:: whether they had no seat
        # questions:: [Slide] they missed
        # slides:: ids of these, each with the slides before it back to the question before, in order
        Missed = Struct.new(:student, :share, :absent, :questions, :slides, keyword_init: true)

        # @param record [Session::Record]
        def initialize(record)
          @record = record
          @results = Results.new(record)
        end

        # @param line [Rational] who is below it needs to catch up
        # @return [Array<Missed>] by name
        def missed(line: LINE)
          @record.roll.filter_map do |student|
            of_student = lines[student.id]
            share = of_student&.share
            next if share && share >= line

            questions = counting.select { |slide| missed?(of_student&.outcomes&.fetch(slide.id)) }
            next if questions.empty?

            Missed.new(student: student, share: share, absent: of_student.nil?, questions: questions,
                       slides: with_what_comes_before(questions)).freeze
          end
        end

        private

        # Questions that count for anybody.
        def counting = @counting ||= @results.slides.reject { |slide| @record.set_aside?(slide.id) }

        # @param outcome [Session::Outcome, nil] nil of who had no seat
        def missed?(outcome) = outcome&.mark ? outcome.mark < 1 : outcome&.answer.nil?

        # @return [Hash{Integer=>Results::Line}] id of the student to their line
        def lines = @lines ||= @results.lines.to_h { |line| [line.seat.student_id, line] }

        def with_what_comes_before(questions)
          shown = @record.lesson.class_slides
          questions.flat_map do |question|
            before = shown.take_while { |slide| slide.id != question.id }.reverse.take_while { |slide| slide.prompt.nil? }
            [*before.reverse, question]
          end.map(&:id)
        end
      end
    end
  end
end
