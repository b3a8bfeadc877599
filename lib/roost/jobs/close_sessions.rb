# frozen_string_literal: true

module Roost
  module Jobs
    # Looks every ten minutes for sessions that nobody has ended.
    class CloseSessions < Repeated
      PERIOD = 600

      def does = Operations::CloseSessions.new.call
    end
  end
end
