# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Where teams answer as one: any device of a team sets the one answer that all of it have, and the last one set counts.
      class TeamAnswers
        # @param record [Record]
        def initialize(record)
          @record = record
          @facts = record.facts
          @known = {}
          @as_one = {}
        end

        # Whether a question is answered so.
        # @param attempt [Integer, nil] nil for the one that counts
        def as_one?(slide_id, attempt = nil)
          return false if @record.teams.empty? || @facts.plays.empty?

          known = @as_one[[slide_id, attempt]]
          return known unless known.nil?

          @as_one[[slide_id, attempt]] = @facts.play_at(slide_id, @record.opening(slide_id, attempt))&.as_one? || false
        end

        # What the team of a seat gave.
        # @return [Answer, nil]
        def of(slide_id, seat_id, attempt = nil)
          attempt ||= @record.attempt(slide_id)
          all(slide_id, attempt)[team_of(slide_id, seat_id, attempt)]
        end

        # What is in time stands before what is late, and what was set before what nobody set.
        # @param attempt [Integer, nil] nil for the one that counts
        # @return [Hash{Integer=>Answer}] team id to answer
        def all(slide_id, attempt = nil)
          attempt ||= @record.attempt(slide_id)
          @known[[slide_id, attempt]] ||= given(slide_id, attempt).transform_values do |of_team|
            of_team.max_by { |each| [each.late? ? 0 : 1, each.final ? 1 : 0, each.received_at, each.arrival] }
          end
        end

        # The same, by the seat that set each.
        # @return [Hash{Integer=>Answer}, nil] nil where each answers alone
        def by_seat(slide_id) = (all(slide_id).values.to_h { |each| [each.seat_id, each] } if as_one?(slide_id))

        private

        # @return [Hash{Integer=>Array<Answer>}] by team
        def given(slide_id, attempt)
          prompt = @record.lesson.slide(slide_id).prompt
          all = @record.answers.fetch([slide_id, attempt], {}).to_h.values
          readable = all.select { |each| each.readable? && !prompt.blank_answer?(each.value) }
          readable.group_by { |each| team_of(slide_id, each.seat_id, attempt) }.except(nil)
        end

        # The team a seat was in when the question opened; of one that came later, the one it came to.
        def team_of(slide_id, seat_id, attempt)
          @record.teams_at(slide_id, attempt)[seat_id] || @record.seat(seat_id)&.team_id
        end
      end
    end
  end
end
