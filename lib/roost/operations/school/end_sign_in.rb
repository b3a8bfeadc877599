# frozen_string_literal: true

module Roost
  module Operations
    # Ends one of a teacher's sign-ins, or all but one.
    class EndSignIn
      # @param session_id [String, nil] of the sign-in; nil ends all
      # @param but [String, nil] the one that stays
      def call(account_id, session_id, but:) = Store::SignIns.new.finish(account_id, session_id: session_id, but: but)
    end
  end
end
