# frozen_string_literal: true

require "json"

module Roost
  module Live
    # LISTEN/NOTIFY: how web processes, on one machine or several, learn that a session
    # has changed. A notice says which session and what kind of change, never what:
    # the listener reads the present state.
    #
    # Scopes: :state (a command was carried out), :answers, :people (arrivals and
    # departures), :seats (one was renamed or removed).
    class Bus
      CHANNEL = "roost_sessions"
      RETRY = 0.5
      SCOPES = %w[state answers people seats].freeze

      # Inside a transaction the notice is sent on commit.
      def self.announce(session_id, scope) = announce_all([[session_id, scope]])

      # @param notices [Enumerable<Array(Integer, Symbol)>] session id and scope, at least one
      def self.announce_all(notices)
        database = Store::Database.connection
        given = database.values(notices.map { |notice| [JSON.generate(notice)] }).as(:given, [:payload])
        database.from(given).select_map(Sequel.function(:pg_notify, CHANNEL, :payload))
      end

      # @param on_notice [#call] session id and scope (Symbol)
      # @param on_return [#call] the connection is there (again); anything may have changed
      # @param look [Numeric] seconds between two looks whether to go on listening
      def initialize(on_notice:, on_return:, look: 0.5)
        @look = look
        @on_notice = on_notice
        @on_return = on_return
      end

      def start
        @running = true
        @thread = Thread.new { listen while @running }
        @thread.name = "roost-bus"
      end

      def stop
        @running = false
        @thread&.join(2) || @thread&.kill
      end

      private

      attr_reader :on_notice, :on_return

      def listen
        database = Store::Database.connect(Roost.settings.database_url, most: 1)
        database.listen(CHANNEL, loop: ->(_connection) { throw :stop unless @running }, timeout: @look,
                                 after_listen: ->(_connection) { on_return.call }) do |_channel, _pid, payload|
          session_id, scope = JSON.parse(payload)
          on_notice.call(session_id, scope.to_sym) if SCOPES.include?(scope)
        end
      rescue Sequel::DatabaseError, PG::Error
        sleep RETRY if @running
      ensure
        database&.disconnect
      end
    end
  end
end
