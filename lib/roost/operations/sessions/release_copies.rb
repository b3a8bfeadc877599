# frozen_string_literal: true

module Roost
  module Operations
    # Lets students see on their copies of a session all that is right, whatever they were told, or takes that back.
    class ReleaseCopies
      # @return [Integer] how many sessions that were: none when she has no such one
      def call(account_id, session_id, released) = Store::Sessions.new.release(account_id, session_id, released)
    end
  end
end
