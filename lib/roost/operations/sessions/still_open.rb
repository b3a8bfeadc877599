# frozen_string_literal: true

module Roost
  module Operations
    # Where anybody may still answer questions that were asked in a session: in it, as long as its window or an attempt is open
    # to somebody, or in another session that asks the same questions, also one that opens later.
    class StillOpen
      # @param rows [Array<Store::Sessions::Row>] that will be asked about, where there are several
      def initialize(rows = [])
        @rows = rows
        @origins = {}
      end

      # @param row [Store::Sessions::Row]
      # @return [Array<Store::Sessions::Row>] the sessions in which they may
      def call(row)
        here = row.self_paced && open_alone?(row) ? [row] : []
        here + beside(row).select { |other| asks_the_same?(row, other) }
      end

      private

      def beside(row)
        return Store::PastSessions.new.beside([row]).fetch(row.id) unless @rows.any? { |each| each.id == row.id }

        @beside ||= Store::PastSessions.new.beside(@rows)
        @beside.fetch(row.id)
      end

      # What was taken back may be given again until then.
      def open_alone?(row) = row.ended_at.nil? && row.now <= Store::Assignments.new.last_closing(row.id)

      def asks_the_same?(row, other) = origins(row).intersect?(origins(other))

      def origins(row)
        @origins[row.id] ||= Store::Sessions.new.lesson_of(row).prompts.map(&:prompt).select(&:keyed?).map(&:origin)
      end
    end
  end
end
