# frozen_string_literal: true

module Roost
  module Operations
    # Takes questions out of a teacher's bank, or brings them back.
    class RemoveFromBank
      NONE = "Choose a question first."

      # @param ids [Array<Integer>]
      # @return [Core::Reading] of the ids
      def call(account_id, ids, removed: true)
        return Core::Reading.refused(NONE) if ids.empty?

        Store::Bank.new.mark_deleted(account_id, ids, removed)
        Core::Reading.ok(ids)
      end
    end
  end
end
