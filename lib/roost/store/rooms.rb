# frozen_string_literal: true

module Roost
  module Store
    # Puts together a session at one moment, as the core sees it.
    class Rooms < Repository
      # @param record [Sessions::Record]
      # @param lesson [Core::Lesson] when the caller has it at hand already
      # @param seats [Array] likewise
      # @param answers [Hash] likewise
      # @param shown [Hash] likewise
      # @param before [Hash] the tallies of the snapshot before
      # @return [Core::Room::Snapshot]
      def snapshot(record, lesson: nil, seats: nil, answers: nil, shown: nil, before: {})
        Core::Room::Snapshot.new(
          id: record.id, title: record.title, code: record.code, options: record.options, state: record.state,
          version: record.version, lesson: lesson || Sessions.new(database).lesson(record.id),
          seats: seats || Seats.new(database).of(record.id), answers: answers || all_answers(record.id),
          shown: shown || Answers.new(database).deliveries(record.id), before: before
        )
      end

      private

      def all_answers(session_id)
        Answers.new(database).of(session_id).each_with_object({}) do |(_seq, answer), answers|
          (answers[answer.slide_id] ||= {})[answer.seat_id] = answer
        end
      end
    end
  end
end
