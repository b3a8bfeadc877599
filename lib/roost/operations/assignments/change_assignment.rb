# frozen_string_literal: true

module Roost
  module Operations
    # Changes an assignment for all: when it opens and closes and by which rules, closes it at once, or takes it back and
    # assigns it again.
    class ChangeAssignment
      NOT_OPEN = "It has not opened yet. Withdraw it instead, or change when it closes."
      WAYS = %w[close change take_back give_back].freeze

      # @param way [String] one of WAYS
      # @param form [Hash{String=>String}] for "change", as Core::Session::Assignment.read
      # @return [Core::Reading, nil] nil when she has no such assignment
      def call(account_id, session_id, way, form = {})
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          next nil unless row&.self_paced

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
        when "change" then anew(row, form)
        when "take_back" then withdraw(row)
        when "give_back" then assign_again(row)
        else Core::Reading.refused("That can't be done with an assignment. Reload the page.")
        end
      end

      # Nobody goes on with it; what they have given stays.
      def withdraw(row)
        Store::Assignments.new.take_back(row.id, true)
        Store::Sittings.new.end_all(row.id, "", row.now)
        Core::Reading.ok(row)
      end

      # Whoever was at work goes on.
      def assign_again(row)
        Store::Assignments.new.take_back(row.id, false)
        Store::Sittings.new.end_assignment(row.id, assignment(row).closes_at)
        Core::Reading.ok(row)
      end

      # Now, for all: what they had counts.
      def close(row)
        return Core::Reading.ok(row) if row.ended_at
        return Core::Reading.refused(NOT_OPEN) if row.now < assignment(row).opens_at

        Store::Assignments.new.allow_no_longer(row.id)
        moved(row, assignment(row).with(closes_at: row.now))
        CommandSession.new.of_row(row, "end")
      end

      # Sittings that have begun keep their rules, but for how many attempts there are and which of them counts.
      def anew(row, form)
        Core::Session::Assignment.read_times(form, time: SchoolClock.here, now: row.now).and_then do |opens_at, closes_at|
          Core::Session::Assignment.read_rules(form).map do |rules|
            moved(row, assignment(row).with(opens_at: opens_at, closes_at: closes_at, rules: rules))
            Store::Sessions.new.reopen(row) if row.ended_at
            row
          end
        end
      end

      def moved(row, changed)
        Store::Assignments.new.change(changed)
        Store::Openings.new.move_all(row.id, changed.opens_at, changed.closes_at)
        Store::Sittings.new.end_assignment(row.id, changed.closes_at)
      end

      def assignment(row) = Store::Assignments.new.find(row.id)
    end
  end
end
