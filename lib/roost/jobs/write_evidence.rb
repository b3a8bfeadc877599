# frozen_string_literal: true

require "que"

module Roost
  module Jobs
    # Writes what was earned in a session that has just ended, so that nobody who looks has to wait for it.
    class WriteEvidence < Que::Job
      # @param session_id [Integer]
      def run(session_id)
        Operations::WriteEvidence.new.call([session_id])
        finish
      end
    end
  end
end
