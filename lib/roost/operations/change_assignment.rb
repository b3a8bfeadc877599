# frozen_string_literal: true

module Roost
  module Operations
    # Changes an assignment for all: when it closes, at once too, or takes it back and gives it again.
    class ChangeAssignment
      NOT_OPEN = "It has not opened yet. Take it back instead, or change when it closes."
      WAYS = %w[close times take_back give_back].freeze

      # @param way [String] one of WAYS
      # @param form [Hash{String=>String}] "closes_at" for "times"
      # @return [Core::Reading, nil] nil when she has no such assignment
      def call(account_id, session_id, way, form = {})
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          next nil unless row&.alone

          change(row, way, form).map do
            Live::Bus.announce(row.id, :state)
            row
          end
        end
      end

      private

      def change(row, way, form)
        case way
        when "close" then close(row)
        when "times" then times(row, form)
        when "take_back", "give_back"
          Store::Assignments.new.take_back(row.id, way == "take_back")
          Core::Reading.ok(row)
        else Core::Reading.refused("That can't be done with an assignment. Reload the page.")
        end
      end

      # Now, for all: what they had counts.
      def close(row)
        return Core::Reading.ok(row) if row.ended_at
        return Core::Reading.refused(NOT_OPEN) if row.now < assignment(row).opens_at

        Store::Assignments.new.allow_no_longer(row.id)
        moved(row, row.now)
        CommandSession.new.by_clock(row.id, "end")
      end

      def times(row, form)
        time = SchoolClock.here
        time.read(form["closes_at"]).and_then do |closes_at|
          next Core::Reading.refused("It closes in the past. Choose a later time.") if closes_at <= row.now

          moved(row, closes_at)
          Store::Sessions.new.reopen(row) if row.ended_at
          Core::Reading.ok(row)
        end
      end

      def moved(row, closes_at)
        given = assignment(row)
        Store::Assignments.new.change_times(given.class.new(**given.to_h, closes_at: closes_at))
        Store::Openings.new.extend_all(row.id, closes_at)
        Store::Sittings.new.end_assignment(row.id, closes_at)
      end

      def assignment(row) = Store::Assignments.new.find(row.id)
    end
  end
end
