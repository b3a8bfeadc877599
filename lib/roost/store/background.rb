# frozen_string_literal: true

require "que"

module Roost
  module Store
    # Work that is left to the background: a row each, which a worker (bin/work) takes up once the
    # transaction it was noted in is through. What is to be done stands in jobs/, under the same name.
    class Background < Repository
      # @param name [String] of a file in jobs/
      # @param arguments [Array] numbers and texts
      def later(name, *arguments)
        job = name.split("_").map(&:capitalize).join
        Que.enqueue(*arguments, job_options: { job_class: "Roost::Jobs::#{job}" })
      end

      # @return [Integer] how many of that name wait, or are being done
      def waiting(job_class) = database[:que_jobs].where(job_class: job_class, finished_at: nil, expired_at: nil).count
    end
  end
end
