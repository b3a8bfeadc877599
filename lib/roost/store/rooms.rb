# frozen_string_literal: true

module Roost
  module Store
    # Puts together a session at one moment, as the core sees it. What was tallied of a session
    # is kept for the next snapshot of it, whoever asks: a page load works out only what is new.
    class Rooms < Repository
      # Sessions whose tallies are kept.
      KEPT = 50

      @tallies = {}
      @lock = Mutex.new

      # @return [Hash] slide id to what was tallied last; written to by the snapshots that use it
      def self.tallies(session_id)
        @lock.synchronize do
          kept = @tallies.delete(session_id) || {}
          @tallies.shift if @tallies.length >= KEPT
          @tallies[session_id] = kept
        end
      end

      # @param record [Sessions::Record]
      # @param seats [Array] when the caller has them at hand already
      # @param answers [Hash] likewise
      # @param shown [Hash] likewise
      # @return [Core::Room::Snapshot]
      def snapshot(record, seats: nil, answers: nil, shown: nil)
        Core::Room::Snapshot.new(
          id: record.id, title: record.title, code: record.code, options: record.options, state: record.state,
          version: record.version, lesson: Sessions.new(database).lesson_of(record),
          seats: seats || Seats.new(database).of(record.id), answers: answers || all_answers(record.id),
          shown: shown || Answers.new(database).deliveries(record.id), before: Rooms.tallies(record.id),
          seed: Roost.settings.session_secret
        )
      end

      # The session as one seat needs it: its own answers, and those of the others only where what
      # they gave is up.
      # @return [Core::Room::Snapshot]
      def seat_snapshot(record, seat_id)
        return snapshot(record) if record.state.showing.any?

        own = Answers.new(database).of(record.id, seat_id: seat_id)
        snapshot(record, answers: by_slide(own), shown: Answers.new(database).deliveries(record.id, seat_id: seat_id))
      end

      private

      def by_slide(rows)
        rows.each_with_object({}) { |(_seq, answer), answers| (answers[answer.slide_id] ||= {})[answer.seat_id] = answer }
      end

      def all_answers(session_id) = by_slide(Answers.new(database).of(session_id))
    end
  end
end
