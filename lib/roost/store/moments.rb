# frozen_string_literal: true

module Roost
  module Store
    # Puts together where a session stands, as the live views see it.
    class Moments < Repository
      NONE = {}.freeze
      private_constant :NONE

      # @param row [Sessions::Row]
      # @param stopped [Array<String>, nil] names, where the caller has them at hand already
      # @param sittings [Hash{Integer=>Core::Session::Sitting}, nil] by seat, likewise
      # @param parts [Hash] see Records#of
      # @return [Core::Session::Moment]
      def of(row, stopped: nil, sittings: nil, **parts)
        # Live views tell no shares, so that nothing is read of sittings that are over.
        record = Records.new(database).of(row, sat: {}, hand: hand(row), live: true, **parts)
        Core::Session::Moment.new(record: record, state: row.state, version: row.version,
                                  sittings: sittings || at_work(row), now: row.now,
                                  code: row.code, stopped: stopped || StoppedNames.new(database).waiting(row.id),
                                  class_name: row.class_name, last_time: Sessions.new(database).last_time(row.id),
                                  seed: Roost.settings.session_secret)
      end

      # The session as one seat needs it: itself and its own answers, and the others only where what
      # they gave is up.
      # @return [Core::Session::Moment]
      def at_seat(row, seat_id)
        return of(row, roll: [], stopped: [], sittings: {}) if row.state.showing.any? || as_one?(row)

        of(row, stopped: [], sittings: {}, **Records.new(database).parts_at_seat(row, seat_id))
      end

      # Whether a class is at a quiz that was opened: only there is anybody at their own speed.
      # @param row [Sessions::Row]
      def in_quiz?(row) = !row.state.opening.nil? && !Sessions.new(database).lesson_of(row).quiz(row.state.slide_id).nil?

      private

      # Whether the present question is answered by teams, so that what others set is this seat's answer, too.
      def as_one?(row) = row.state.facts.play_of(row.state.slide_id)&.as_one? || false

      # Marks by hand are for looking back, but for those of teams at the board, which are how their answers are entered.
      def hand(row) = row.options.teams == "board" ? HandMarks.new(database).of(row.id) : NONE

      def at_work(row)
        return {} unless in_quiz?(row)

        Sittings.new(database).of(row.id, row.state.slide_id).to_h { |kept| [kept.seat_id, kept.sitting] }
      end
    end
  end
end
