# frozen_string_literal: true

require "json"

module Roost
  module Store
    # What is told of a session that has changed (Live::Bus), as PostgreSQL's NOTIFY takes it.
    module Notices
      CHANNEL = "roost_sessions"
      MOST = 7_500 # bytes; PostgreSQL takes 8000

      # @param scope [Symbol] as in Live::Bus
      # @param step [Core::Session::StepOn, nil] what has changed, told with it where it is small enough
      # @return [String]
      def self.payload(session_id, scope, step = nil)
        told = step && JSON.generate([session_id, scope, step.to_document])
        told.nil? || told.bytesize > MOST ? JSON.generate([session_id, scope]) : told
      end

      # What a statement is given that tells it.
      # @return [Hash] :channel and :notice
      def self.of(*about) = { channel: CHANNEL, notice: payload(*about) }
    end
  end
end
