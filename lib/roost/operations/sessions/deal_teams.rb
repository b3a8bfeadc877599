# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Deals everybody who sits in a session to its teams anew, by chance and evenly.
    class DealTeams
      # @return [Hash{Integer=>Integer}, nil] seat id to team id; nil when she has no such session, or it has no teams
      def call(account_id, session_id)
        sessions = Store::Sessions.new
        teams = Store::Teams.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          all = row && row.options.teams != "board" ? teams.of(session_id) : []
          next nil if all.empty?

          seats = Store::Seats.new.of(session_id).map(&:id)
          dealt = Core::Session::Team.deal(seats, all, Random.new(SecureRandom.random_number(2**32))).tap { |places| teams.put(places) }
          sessions.advance(row, row.state, command: "deal", account_id: account_id, arguments: {})
          %i[people state].each { |scope| Live::Bus.announce(session_id, scope) }
          dealt
        end
      end
    end
  end
end
