# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Seats that belong together in a session. mark:: number of its drawing, from 0
      Team = Struct.new(:id, :name, :mark, keyword_init: true) do
        # Plants of the marsh; each has a drawing.
        self::NAMES = %w[Reed Sedge Willow Iris Mint Thistle Clover Lily].freeze
        self::COUNTS = (2..self::NAMES.length)
        # More than a class has groups, also where they are pairs.
        self::MOST = 30
        # How seats come to their teams.
        self::WAYS = { "" => "No teams", "dealt" => "Evenly, as students join", "groups" => "From the class's groups",
                       "chosen" => "Students choose", "board" => "At the board, without devices" }.freeze

        # @return [Array<Array(String, Integer)>] names and marks of so many
        def self.named(count) = self::NAMES.first(count).each_with_index.to_a

        # @param groups [Array<String>] of a class, as they stand with its students
        # @return [Array<Array(String, Integer)>] those that are there, by name, with marks
        def self.of_groups(groups)
          groups.map(&:strip).reject(&:empty?).uniq.sort_by { |name| name.downcase.gsub(/\d+/) { |digits| digits.rjust(4, "0") } }
                .first(self::MOST).each_with_index
                .map { |name, place| [name, place % self::NAMES.length] }
        end

        # Deals seats to teams so that sizes differ by one at most (rules.md).
        # @param seat_ids [Array<Integer>]
        # @param teams [Array<Team>]
        # @param random [Random]
        # @return [Hash{Integer=>Integer}] seat id to team id
        def self.deal(seat_ids, teams, random)
          ids = teams.map(&:id).shuffle(random: random)
          seat_ids.shuffle(random: random).each_with_index.to_h { |seat_id, place| [seat_id, ids[place % ids.length]] }
        end
      end
    end
  end
end
