# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How each does in a round against the last time they played it in this session (rules.md, against yourself), or else
      # against the median of the others. The earlier answers earn what they would in the present style, so that like is compared
      # with like; where that asks how sure one is, and the earlier did not, both are worth their marks.
      class RoundComparisons
        # @param record [Record]
        # @param section [Section]
        # @param round [RoundResult] of the present play
        # @return [Hash{Integer=>Game::Comparison}] seat id to what there is to compare
        def self.of(record, section, round)
          plays = record.facts.plays.fetch(section.id, [])
          return {} if plays.length < 2 || round.questions.empty?

          new(record, round, plays[0...-1].map { |play| RoundResult.new(record, section, play) }).all
        end

        def initialize(record, round, earlier)
          @record = record
          @round = round
          @earlier = earlier
          @style = style
          @earned = {}
          @medians = {}
        end

        # @return [Hash{Integer=>Game::Comparison}] by seat
        def all
          now, *before = [@round, *@earlier].map { |each| by_seat(each) }
          slides = @round.questions.to_h { |slide| [slide.id, slide] }
          compared = now.map do |seat_id, points|
            earlier = before.map { |each| each[seat_id] }.reject(&:empty?)
            [seat_id, Game::Comparison.new(points.transform_keys(&slides), earlier) { |id| median(id, points[id]) }]
          end
          compared.to_h.select { |_, each| each.against }
        end

        private

        def style
          asked = @round.style.certainty? && @earlier.all? { |each| each.style.certainty? }
          asked || !@round.style.certainty? ? @round.style : Game::Styles::Steady.new
        end

        # What each earned of the questions that they reached.
        # @return [Hash{Integer=>Hash{String=>Integer}}] seat id to slide id to points
        def by_seat(round)
          found = @record.seats.to_h { |seat| [seat.id, {}] }
          round.questions.each { |slide| points(round, slide).each { |seat_id, earned| found[seat_id][slide.id] = earned } }
          found
        end

        # @return [Hash{Integer=>Integer}] seat id to points of one question in the present style, of those who reached it
        def points(round, slide)
          question = round.question(slide)
          reached = question.outcomes.select { |seat_id, _| question.reached?(seat_id) }
          return question.points.slice(*reached.keys) if @style == round.style

          reached.to_h { |seat_id, outcome| [seat_id, again(round, slide, seat_id, outcome)] }
        end

        # What an answer would have earned.
        def again(round, slide, seat_id, outcome)
          return 0 if outcome.mark.nil?

          attempt = round.attempt(slide)
          scoring = @record.scoring(slide.id, seat_id, attempt: attempt, style: @style)
          shown_at = @record.shown_at(slide.id, seat_id, attempt: attempt)
          scoring.outcome(outcome.answer, shown_at, hand: outcome.mark).points
        end

        # Of the others who reached a question; the same for all who earned as much.
        def median(slide_id, own)
          known = @medians[slide_id] ||= {}
          return known[own] if known.key?(own)

          others = earned(slide_id).dup
          others.delete_at(others.index(own))
          known[own] = Game::Comparison.median(others)
        end

        # @return [Array<Integer>] points of all who reached it
        def earned(slide_id)
          @earned[slide_id] ||= points(@round, @round.questions.find { |slide| slide.id == slide_id }).values
        end
      end
    end
  end
end
