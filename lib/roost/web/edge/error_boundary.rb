# frozen_string_literal: true

module Roost
  module Web
    # Whatever is raised below becomes one sentence; of it the log gets what and where, but nothing
    # that was sent: no address, no text, no name.
    class ErrorBoundary
      SENTENCE = "Something went wrong here. Go back and try again; what you had saved is still there."
      AWAY = "The database isn't answering. Nothing is lost; try again in a few seconds."

      def initialize(app)
        @app = app
      end

      def call(env)
        @app.call(env)
      rescue Sequel::DatabaseConnectionError, Sequel::DatabaseDisconnectError, Sequel::PoolTimeout
        RequestFilter.refusal(503, AWAY).tap { |_, headers, _| headers["retry-after"] = "2" }
      rescue StandardError, SystemStackError => e
        ErrorBoundary.note(e)
        RequestFilter.refusal(500, SENTENCE)
      end

      # @param error [Exception]
      def self.note(error) = Live::Fault.note("error", error)
    end
  end
end
