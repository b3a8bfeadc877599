# frozen_string_literal: true

module Roost
  module Operations
    # Lets answers that came late count all the same, one of them or all to a question, or takes that back.
    class LetCount
      # @param seat_id [Integer, nil] of one; nil: of all who were late
      # @param counts [Boolean]
      # @return [Integer, nil] how many that changed; nil when she has no such session or question
      def call(account_id, session_id, slide_id, counts:, seat_id: nil)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row && Store::Sessions.new.lesson_of(row).slide(slide_id)&.prompt

        changed = Store::Answers.new.let_count(row.id, slide_id, counts, seat_id: seat_id)
        Store::Evidence.new.changed(row.id) if changed.positive?
        Live::Bus.announce(row.id, :answers) if changed.positive?
        changed
      end
    end
  end
end
