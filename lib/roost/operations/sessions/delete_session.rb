# frozen_string_literal: true

module Roost
  module Operations
    # Deletes a teacher's own session that has ended, or brings it back while that can be done.
    class DeleteSession
      # @return [Boolean] whether it is hers and has ended
      def call(account_id, session_id, deleted: true) = Store::Sessions.new.mark_deleted(account_id, session_id, deleted)
    end
  end
end
