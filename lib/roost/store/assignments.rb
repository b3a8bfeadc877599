# frozen_string_literal: true

module Roost
  module Store
    # Assignments, which are sessions that each goes through alone, and what single students are allowed besides.
    class Assignments < Repository
      # As long as there is none of that session.
      # @param assignment [Core::Session::Assignment]
      def create(session_id, assignment)
        row = { session_id: session_id, pieces: assignment.pieces && Sequel.pg_jsonb(assignment.pieces),
                sections: Sequel.pg_array(assignment.sections, :text), rules: Sequel.pg_jsonb(assignment.rules) }
        database[:assignments].insert_conflict.insert(**row, **times(assignment))
      end

      # @return [Core::Session::Assignment, nil]
      def find(session_id) = rows.where(Sequel[:assignments][:session_id] => session_id).first&.then { |row| read(row) }

      # An assignment as one seat has it.
      # @return [Array(Core::Session::Assignment, Hash, Integer)] with #allowance, and the id of the student, or nil
      def at_seat(session_id, seat_id)
        row = prepared(:assignment_at_seat) do
          rows.left_join(:seats) { { Sequel[:seats][:id] => :$seat_id } }.left_join(:allowances, seat_id: Sequel[:seats][:id])
              .where(Sequel[:assignments][:session_id] => :$session_id)
              .select_append(:student_id, Repository.epoch(Sequel[:allowances][:closes_at]).as(:until), :attempts)
        end.call(session_id: session_id, seat_id: seat_id).first
        allowance = { closes_at: row[:until], attempts: row[:attempts].to_i }
        [read(row.except(:student_id, :until, :attempts)), allowance, row[:student_id]]
      end

      # @param session_ids [Array<Integer>]
      # @return [Hash{Integer=>Core::Session::Assignment}]
      def of(session_ids) = rows.where(session_id: session_ids).to_h { |row| [row[:session_id], read(row)] }

      # When it opens and closes, and by which rules.
      # @param assignment [Core::Session::Assignment]
      def change(assignment)
        database[:assignments].where(session_id: assignment.session_id)
                              .update(rules: Sequel.pg_jsonb(assignment.rules), **times(assignment))
      end

      # Takes an assignment back, or gives it again.
      def take_back(session_id, unassigned)
        stamp = unassigned ? Sequel.function(:clock_timestamp) : nil
        database[:assignments].where(session_id: session_id).update(unassigned_at: stamp)
      end

      # What a seat is allowed beyond what all are.
      # @return [Hash] :closes_at (epoch seconds, nil as for all) and :attempts
      def allowance(seat_id)
        database[:allowances].where(seat_id: seat_id).select(Repository.epoch(:closes_at).as(:closes_at), :attempts).first ||
          { closes_at: nil, attempts: 0 }
      end

      # @return [Hash{Integer=>Hash}] seat id to #allowance, of those that are allowed more than others
      def allowances(session_id)
        database[:allowances].join(:seats, id: :seat_id).where(session_id: session_id)
                             .select(:seat_id, Repository.epoch(:closes_at).as(:closes_at), :attempts)
                             .to_h { |row| [row[:seat_id], row.slice(:closes_at, :attempts)] }
      end

      # @param closes_at [Float, nil] epoch seconds; nil leaves it
      # @param attempts [Integer] how many more
      def allow(seat_id, closes_at: nil, attempts: 0)
        row = { closes_at: closes_at && Sequel.function(:to_timestamp, closes_at), attempts: attempts }
        more = { closes_at: Sequel.function(:greatest, Sequel[:allowances][:closes_at], Sequel[:excluded][:closes_at]),
                 attempts: Sequel[:allowances][:attempts] + Sequel[:excluded][:attempts] }
        database[:allowances].insert_conflict(target: :seat_id, update: more).insert(seat_id: seat_id, **row)
      end

      # When an assignment closes for the last of all.
      # @return [Float] epoch seconds
      def last_closing(session_id)
        longest = database[:allowances].join(:seats, id: :seat_id).where(session_id: session_id)
                                       .select { max(Sequel[:allowances][:closes_at]) }
        latest = Sequel.function(:greatest, Sequel[:assignments][:closes_at], longest)
        database[:assignments].where(session_id: session_id).get(Repository.epoch(latest))
      end

      # Nobody has longer than the others any more.
      def allow_no_longer(session_id)
        seats = database[:seats].where(session_id: session_id).select(:id)
        database[:allowances].where(seat_id: seats).update(closes_at: nil)
      end

      # @return [Array<Integer>] ids of sessions whose time is over for everybody, and that have not ended
      def over
        seats = database[:allowances].join(:seats, id: :seat_id).where(Sequel[:seats][:session_id] => Sequel[:sessions][:id])
        longest = seats.select { max(Sequel[:allowances][:closes_at]) }
        latest = Sequel.function(:greatest, Sequel[:assignments][:closes_at], longest)
        database[:assignments].join(:sessions, id: :session_id).where(ended_at: nil, deleted_at: nil)
                              .where(latest < Sequel.function(:clock_timestamp)).select_map(Sequel[:sessions][:id])
      end

      private

      def rows
        times = %i[opens_at closes_at].map { |name| Repository.epoch(Sequel[:assignments][name]).as(name) }
        own = %i[session_id sections rules pieces].map { |name| Sequel[:assignments][name] }
        database[:assignments].select(*own, (Sequel[:unassigned_at] !~ nil).as(:unassigned), *times)
      end

      def read(row)
        Core::Session::Assignment.new(**row, sections: row[:sections].to_a.freeze, rules: row[:rules].to_h.freeze,
                                             pieces: row[:pieces]&.to_h).freeze
      end

      def times(assignment)
        %i[opens_at closes_at].to_h { |name| [name, Sequel.function(:to_timestamp, assignment[name])] }
      end
    end
  end
end
