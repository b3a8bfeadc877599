# frozen_string_literal: true

require "que"

module Roost
  module Jobs
    # Work that is done again after a while. There is always one of each waiting. A job says its PERIOD in
    # seconds, and what it #does.
    class Repeated < Que::Job
      # Sees to it that one is waiting; called whenever a worker starts.
      def self.schedule
        enqueue if Store::Background.new.waiting(name).zero?
      end

      def run
        does
        self.class.enqueue(job_options: { run_at: Time.now + self.class::PERIOD })
        finish
      end
    end
  end
end
