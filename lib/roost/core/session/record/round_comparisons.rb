# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How each does in a round against the last time they played it in this session (rules.md, against yourself), or else
      # against the median of the class. The earlier answers earn what they would in the present style, so that like is compared
      # with like; where that asks how sure one is, and the earlier did not, both are worth their marks.
      module RoundComparisons
        # @param record [Record]
        # @param section [Section]
        # @param round [RoundResult] of the present play
        # @return [Hash{Integer=>Game::Comparison}] seat id to what there is to compare
        def self.of(record, section, round)
          plays = record.facts.plays.fetch(section.id, [])
          return {} if plays.length < 2 || round.questions.empty?

          earlier = plays[0...-1].map { |play| RoundResult.new(record, section, play) }
          record.seats.to_h { |seat| [seat.id, new_of(record, round, earlier, seat)] }.select { |_, each| each.against }
        end

        class << self
          private

          def new_of(record, round, earlier, seat)
            style = round.style
            style = Game::Styles::Steady.new if style.certainty? && earlier.any? { |each| !each.style.certainty? }
            now = round.questions.select { |slide| reached?(round, slide, seat.id) }
                       .to_h { |slide| [slide, earned(record, round, slide, seat.id, style)] }
            before = earlier.map { |each| points(record, each, seat.id, style) }.reject(&:empty?)
            Game::Comparison.new(now, before) { |slide_id| median(round, record.lesson.slide(slide_id), seat.id) }
          end

          def points(record, round, seat_id, style)
            round.questions.select { |slide| reached?(round, slide, seat_id) }
                 .to_h { |slide| [slide.id, earned(record, round, slide, seat_id, style)] }
          end

          def reached?(round, slide, seat_id) = round.outcome(slide, seat_id).status != :not_reached

          # What an answer earns in that style, whatever it was given in.
          def earned(record, round, slide, seat_id, style)
            attempt = round.attempt(slide)
            outcome = round.outcome(slide, seat_id)
            return outcome.points.to_i if style == round.style || outcome.mark.nil?

            answer = outcome.answer
            scoring = Scoring.new(slide, style: style, opening: record.opening(slide.id, attempt), rules: record.rules,
                                         factor: record.seat(seat_id).factor)
            scoring.outcome(answer, record.shown_at(slide.id, seat_id, attempt: attempt),
                            hand: (outcome.mark if answer.nil?)).points.to_i
          end

          def median(round, slide, seat_id) = Game::Comparison.median(round.points(slide).except(seat_id).values)
        end
      end
    end
  end
end
