# frozen_string_literal: true

require "time"

module Roost
  module Live
    # What the log gets of something that went wrong: when, what, the database's code and where, and nothing that was sent.
    module Fault
      # The field of an error of PostgreSQL that has its SQLSTATE. Source: libpq, PQresultErrorField.
      SQLSTATE = "C".ord

      # @param what [String] came of it
      # @param error [Exception]
      def self.note(what, error)
        place = error.backtrace&.find { |line| line.include?("/lib/roost/") } || error.backtrace&.first
        about = [error.class, code(error)].compact.join(" ")
        warn "#{Time.now.utc.iso8601} #{what}: #{about} at #{place.to_s.split("/lib/roost/").last}"
      end

      # @return [String, nil] what the database says it is; "53100" is a full disk
      def self.code(error)
        reply = error.respond_to?(:wrapped_exception) ? error.wrapped_exception : error.cause
        reply.result&.error_field(SQLSTATE) if reply.respond_to?(:result)
      end
      private_class_method :code
    end
  end
end
