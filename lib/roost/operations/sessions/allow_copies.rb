# frozen_string_literal: true

module Roost
  module Operations
    # Lets students keep a copy of what they gave in a session, or takes their copies back.
    class AllowCopies
      # @return [Integer] how many sessions that were: none when she has no such one
      def call(account_id, session_id, allowed) = Store::Sessions.new.allow_copies(account_id, session_id, allowed)
    end
  end
end
