# frozen_string_literal: true

module Roost
  module Operations
    # Puts a seat into another team of its session.
    class MoveToTeam < ChangeSeat
      GONE = "That team isn't in this session. Reload the page."

      # @return [Core::Reading, nil] of what is recorded; nil when she has no such session or seat
      def call(account_id, session_id, seat_id, team_id)
        change(account_id, session_id, seat_id, "team") do
          teams = Store::Teams.new
          next Core::Reading.refused(GONE) unless teams.of(session_id).any? { |team| team.id == team_id }

          teams.put({ seat_id => team_id })
          Core::Reading.ok({ "team" => team_id })
        end
      end
    end
  end
end
