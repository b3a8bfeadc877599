# frozen_string_literal: true

module Roost
  module Live
    # What the log gets of something that went wrong: what and where, and nothing that was sent.
    module Fault
      # @param what [String] came of it
      # @param error [Exception]
      def self.note(what, error)
        place = error.backtrace&.find { |line| line.include?("/lib/roost/") } || error.backtrace&.first
        warn "#{what}: #{error.class} at #{place.to_s.split("/lib/roost/").last}"
      end
    end
  end
end
