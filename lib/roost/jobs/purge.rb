# frozen_string_literal: true

require "que"

module Roost
  module Jobs
    # Purges once a day. There is always one of these waiting.
    class Purge < Que::Job
      PERIOD = 24 * 3600

      # Sees to it that one is waiting; called whenever a worker starts.
      def self.schedule
        enqueue if Store::Background.new.waiting(name).zero?
      end

      def run
        Operations::Purge.new.call
        self.class.enqueue(job_options: { run_at: Time.now + PERIOD })
        finish
      end
    end
  end
end
