# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # A session looked back on: every seat's outcome on every prompt that was opened,
      # with the figures per question and per student.
      class Results
        # share:: mean mark; of several attempts of which the mean counts, the mean share, while the rest is of the last
        Line = Struct.new(:seat, :outcomes, :marks, :share, :right, :points, keyword_init: true) do
          # How many of the questions that count were marked.
          def marked = marks.length
        end

        # slides:: those whose question was asked; passed_over:: those that were only leafed through
        attr_reader :record, :slides, :passed_over

        # @param record [Session::Record]
        def initialize(record)
          @record = record
          asked = record.lesson.prompts.select { |slide| record.openings.key?(slide.id) }
          @passed_over, @slides = asked.partition { |slide| record.passed_over?(slide.id) }
        end

        # @return [Array<Question>] in lesson order
        def questions = @questions ||= slides.map { |slide| Question.of(slide, outcomes(slide).values) }

        # @return [Numeric, nil] of those who answered, nil when nobody did
        def median_seconds(slide) = Question.median(record.seconds(slide.id).values)

        # @return [Array<Line>] one a seat, in the order of the class list, and then by name who isn't on it
        def lines
          @lines ||= begin
            of_slides = slides.to_h { |slide| [slide.id, outcomes(slide)] }
            record.in_order(record.seats).map { |seat| line(seat, of_slides.transform_values { |of_seats| of_seats[seat.id] }) }
          end
        end

        # @return [Line, nil] one seat's, without working out the others
        def line_of(seat_id)
          seat = record.seat(seat_id)
          seat && line(seat, slides.to_h { |slide| [slide.id, record.outcome(slide.id, seat_id)] })
        end

        # By which steps mark and points of one seat on one question came about.
        # @return [Array<Step>]
        def why(slide_id, seat_id)
          steps = []
          record.outcome(slide_id, seat_id, steps: steps)
          steps
        end

        # What one seat earned of what it reached.
        # @param marks [Array<Rational>] of the questions that count
        # @param steps [Array<Step>, nil]
        # @return [Rational, nil]
        def share_of(seat_id, marks, steps: nil)
          mean = record.mean_share(seat_id)
          return Step.note(steps, :mean_of_attempts, mean) if mean
          return nil if marks.empty?

          sum = Step.note(steps, :sum_of_own, marks.sum, questions: marks.length)
          Step.note(steps, :share, sum / marks.length, sum: sum, questions: marks.length)
        end

        # By points among all, in what was played.
        # @param steps [Array<Step>, nil]
        # @return [Integer] from 1
        def rank_of(line, steps: nil) = Game::Standings.rank(lines.map(&:points), line.points, steps: steps)

        # Mean mark over everything that counts, was marked and reached; nil when nothing was.
        # @return [Rational, nil]
        def share
          @share ||= begin
            marked = lines.sum(&:marked)
            lines.sum { |line| line.marks.sum } / marked if marked.positive?
          end
        end

        # The number of a slide among those the class got, from 1.
        def number(slide) = record.lesson.class_slides.index { |shown| shown.id == slide.id } + 1

        def took_part = lines.count { |line| line.outcomes.values.any?(&:answer) }

        def below_half = lines.count { |line| line.share && line.share < 1/2r }

        # Questions that fewer than half of the marks were earned on.
        def to_look_at = questions.select { |question| question.facility && question.facility < 1/2r }

        # How many answers wait to be marked by hand, by slide.
        # @return [Hash{Slide=>Integer}]
        def to_mark
          slides.to_h { |slide| [slide, outcomes(slide).count { |_, outcome| outcome.status == :to_mark }] }
                .select { |_, many| many.positive? }
        end

        # How good the questions were.
        def items = @items ||= Items.of(self)

        # @return [Hash{Integer=>Session::Outcome}] by seat
        def outcomes(slide) = (@outcomes ||= {})[slide.id] ||= record.outcomes(slide.id)

        def game? = slides.any? { |slide| record.lesson.game?(slide.id) }

        private

        def line(seat, outcomes)
          @counting ||= slides.select { |slide| slide.prompt.counts? }
          marks = @counting.filter_map { |slide| outcomes[slide.id].mark || (0r if record.owed?(slide.id, seat.id)) }
          Line.new(seat: seat, outcomes: outcomes, marks: marks, right: marks.count(1), share: share_of(seat.id, marks),
                   points: outcomes.values.filter_map(&:points).sum).freeze
        end
      end
    end
  end
end
