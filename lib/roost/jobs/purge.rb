# frozen_string_literal: true

module Roost
  module Jobs
    # Purges once a day.
    class Purge < Repeated
      PERIOD = 24 * 3600

      def does = Operations::Purge.new.call
    end
  end
end
