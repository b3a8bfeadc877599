# frozen_string_literal: true

module Roost
  module Operations
    # What happened in a session, in a few lines (Core::Analysis::Headlines), compared with the last of the same class.
    class WhatHappened
      LAST = 8 # sessions that are looked at; somebody may have been away

      # @param row [Store::Sessions::Row]
      # @param results [Core::Analysis::Results] of it
      # @return [Array<Core::Analysis::Headlines::Line>]
      def call(row, results)
        Core::Analysis::Headlines.new(results, before: before(row, results.record.seats)).all
      end

      private

      # @return [Hash{Integer=>Array<Rational>}] by seat
      def before(row, seats)
        students = seats.reject(&:practice).to_h { |seat| [seat.student_id, seat.id] }.except(nil)
        earlier = students.empty? ? [] : Store::PastSessions.new.before(row, LAST)
        return {} if earlier.empty?

        WriteEvidence.new.call(earlier)
        Store::Evidence.new.shares(earlier, students.keys).transform_keys(students)
      end
    end
  end
end
