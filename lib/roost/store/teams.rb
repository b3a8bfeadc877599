# frozen_string_literal: true

module Roost
  module Store
    # Teams of sessions, and which seats are in which.
    class Teams < Repository
      # The smallest team of a session: where several are, the first in an order that is given. NULL where there are none.
      SMALLEST = <<~SQL
        (SELECT teams.id FROM teams
         LEFT JOIN seats ON seats.team_id = teams.id AND seats.removed_at IS NULL
         WHERE teams.session_id = :session_id GROUP BY teams.id
         ORDER BY count(seats.id), array_position(:team_order::bigint[], teams.id), teams.id LIMIT 1)
      SQL

      # @param teams [Array<Array(String, Integer)>] names and marks
      def create(session_id, teams)
        database[:teams].multi_insert(teams.map { |name, mark| { session_id: session_id, name: name, mark: mark } })
      end

      # @return [Array<Core::Session::Team>] in order of making
      def of(session_id)
        of_session = prepared(:teams_of_session) { database[:teams].where(session_id: :$id).order(:id).select(:id, :name, :mark) }
        of_session.call(id: session_id).map { |row| Core::Session::Team.new(**row).freeze }
      end

      # @return [Hash{Integer=>Integer}] team id to how many seats are in it
      def sizes(session_id)
        database[:seats].where(session_id: session_id, removed_at: nil).exclude(team_id: nil).group_and_count(:team_id)
                        .as_hash(:team_id, :count)
      end

      # @param places [Hash{Integer=>Integer}] seat id to team id
      def put(places)
        places.group_by(&:last).each do |team_id, seats|
          database[:seats].where(id: seats.map(&:first)).update(team_id: team_id)
        end
      end

      # @param but [Array<Array(String, Integer)>] questions that are known already
      # @return [Hash{Array(String, Integer)=>Hash{Integer=>Integer}}] slide and attempt to seat id to the team it was in then
      def at_openings(session_id, but: [])
        found = database[:opening_teams].where(session_id: session_id)
        found = found.exclude(%i[slide_id attempt] => but) if but.any?
        found.select_map(%i[slide_id attempt seat_id
                            team_id]).each_with_object({}) do |(slide_id, attempt, seat_id, team_id), all|
          (all[[slide_id, attempt]] ||= {})[seat_id] = team_id
        end
      end

      # Keeps who was in which team when a question opened.
      def keep_opening(session_id, slide_id, attempt)
        opening = [Sequel.cast(slide_id, :text), Sequel.cast(attempt, Integer)]
        seats = database[:seats].where(session_id: session_id, removed_at: nil).exclude(team_id: nil)
                                .select(:session_id, *opening, :id, :team_id)
        database[:opening_teams].insert_conflict.insert(%i[session_id slide_id attempt seat_id team_id], seats)
      end
    end
  end
end
