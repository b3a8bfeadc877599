# frozen_string_literal: true

module Roost
  module Operations
    # Writes down that somebody looked at what is kept about a student, or changed a mark, for the keeper.
    class NoteLook
      # @param student_ids [Array<Integer, nil>]
      # @param what [Symbol] see Store::LookedAt
      # @param said [String] more of it
      def call(account_id, student_ids, what, said: "") = Store::LookedAt.new.note(account_id, student_ids, what, said: said)
    end
  end
end
