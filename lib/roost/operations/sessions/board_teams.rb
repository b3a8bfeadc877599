# frozen_string_literal: true

module Roost
  module Operations
    # Teams that play at the board, without devices: each is a team with one seat, whose answers the teacher enters.
    class BoardTeams
      COUNTS = Core::Session::Team::COUNTS
      MANY = "Two to eight teams can play at the board: write one name per line."
      SAME = "Two teams have the same name. Give each its own."
      THERE = "This session has teams already."
      TAKEN = "Somebody is called %s already. Give the team another name."
      NAME_LIMIT = 30

      # @param text [String] a name a line
      # @return [Core::Reading, nil] of the ids of their seats; nil when she has no such session
      def call(account_id, session_id, text)
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          next nil if row.nil? || row.deleted || row.self_paced
          next Core::Reading.refused(THERE) if row.options.teams? || row.ended_at

          BoardTeams.read(text).and_then { |names| make(row, names) }
        end
      end

      # Makes them in a session that has just been made.
      # @param names [Array<String>]
      # @return [Core::Reading] of the ids of their seats
      def self.fill(session_id, names)
        teams = Store::Teams.new
        teams.create(session_id, names.each_with_index.to_a)
        seats = teams.of(session_id).map do |team|
          id, = Store::Seats.new.create(session_id, team.name, team_id: team.id, board: true)
          return Core::Reading.refused(format(TAKEN, team.name)) unless id

          id
        end
        Core::Reading.ok(seats)
      end

      # @return [Core::Reading] of names
      def self.read(text)
        names = text.to_s[0, 1000].lines.map { |line| Core::Text.read(line, limit: NAME_LIMIT, what: "A team's name", lines: false) }
        bad = names.find { |name| !name.ok? }
        return bad if bad

        names = names.map(&:value).reject(&:empty?)
        return Core::Reading.refused(MANY) unless COUNTS.cover?(names.length)

        names.map(&:downcase).uniq.length == names.length ? Core::Reading.ok(names) : Core::Reading.refused(SAME)
      end

      private

      def make(row, names)
        sessions = Store::Sessions.new
        made = nil
        sessions.transaction(savepoint: true) do
          made = BoardTeams.fill(row.id, names)
          raise Sequel::Rollback unless made.ok?
        end
        made.map do |seats|
          sessions.play_in(row.id, "board")
          sessions.advance(row, row.state, command: "board_teams", account_id: row.account_id, arguments: { "names" => names })
          %i[people state].each { |scope| Live::Bus.announce(row.id, scope) }
          seats
        end
      end
    end
  end
end
