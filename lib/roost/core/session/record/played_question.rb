# frozen_string_literal: true

module Roost
  module Core
    module Session
      # One question in one play of its round, as all answered it: worked out once, and then looked up for each seat.
      #
      # outcomes:: Hash of seat id to Outcome; points:: likewise to Integer
      # marks:: [Rational] of those who reached it; right:: Hash of seat id to true, of those who had it right
      # team_points:: Hash of team id to the mean over the seats that were in it when the question opened, halves up: so what is
      # shown adds up
      # quickest:: [seat id, seconds] of the quickest of these, where there are more than QUICK_OF; else nil
      PlayedQuestion = Struct.new(:outcomes, :points, :marks, :right, :team_points, :quickest) do
        # Among how many one is the quickest, or the only one who knew.
        self::QUICK_OF = 2

        # @param record [Record]
        # @param attempt [Integer]
        def self.of(record, slide_id, attempt)
          outcomes = record.seats.to_h { |seat| [seat.id, record.outcome(slide_id, seat.id, attempt: attempt)] }
          right = outcomes.select { |_, outcome| outcome.mark == 1 }.transform_values { true }
          points = outcomes.transform_values { |outcome| outcome.points || 0 }
          quickest = quickest_of(record, slide_id, attempt, outcomes.slice(*right.keys))
          new(outcomes, points, outcomes.each_value.filter_map(&:mark), right,
              team_points_of(record, record.teams_at(slide_id, attempt), points), quickest).freeze
        end

        def self.team_points_of(record, teams_at, points)
          members = teams_at.keys.group_by { |seat_id| teams_at[seat_id] }
          record.teams.to_h do |team|
            earned = points.values_at(*members.fetch(team.id, [])).compact
            [team.id, earned.empty? ? 0 : Rational(earned.sum, earned.length).round(half: :up)]
          end
        end
        private_class_method :team_points_of

        def self.quickest_of(record, slide_id, attempt, outcomes)
          times = outcomes.filter_map do |seat_id, outcome|
            shown_at = outcome.answer && record.shown_at(slide_id, seat_id, attempt: attempt)
            [seat_id, outcome.answer.received_at - shown_at] if shown_at && !outcome.answer.entered
          end
          times.min_by(&:last) if times.length > self::QUICK_OF
        end
        private_class_method :quickest_of

        # Whether a seat had a part in it.
        def reached?(seat_id) = outcomes.fetch(seat_id).status != :not_reached

        # Whether nobody but this seat had it right.
        def only?(seat_id) = right.length == 1 && right.key?(seat_id) && marks.length > self.class::QUICK_OF

        # How right it was answered, by those who reached it.
        # @return [Rational, nil]
        def facility = (marks.sum / marks.length if marks.any?)
      end
    end
  end
end
