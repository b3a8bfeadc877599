# frozen_string_literal: true

module Roost
  module Operations
    # How the same questions went wherever they were asked: in a teacher's own sessions, and in classes whose teachers let
    # colleagues see that.
    class OverSessions
      # @param origins [Array<String>]
      # @return [Hash{String=>Core::Analysis::OverSessions}] of those that were asked
      def call(account_id, origins)
        evidence = Store::Evidence.new
        asked = evidence.over_sessions(account_id, origins)
        written = WriteEvidence.new.call(asked.values.flatten.map(&:session_id).uniq)
        asked = evidence.over_sessions(account_id, origins) if written.any?
        asked.transform_values { |all| Core::Analysis::OverSessions.new(all) }
      end
    end
  end
end
