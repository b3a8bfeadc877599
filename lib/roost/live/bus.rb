# frozen_string_literal: true

require "json"

module Roost
  module Live
    # LISTEN/NOTIFY: how web processes, on one machine or several, learn that a session
    # has changed. A notice says which session and what kind of change; of a command also what it changed, where that
    # is little (Core::Session::StepOn). The listener reads the rest.
    #
    # Scopes: :state (a command was carried out), :answers, :people (arrivals and
    # departures), :seats (one was renamed or removed).
    class Bus
      CHANNEL = Store::Notices::CHANNEL
      # What the pen draws goes with its notice: it is small, and nothing is read for it.
      INK = "roost_ink"
      MOST_INK = Store::Notices::MOST
      RETRY = 0.5
      SCOPES = %w[state answers people seats].freeze

      # Inside a transaction the notice is sent on commit.
      def self.announce(session_id, scope) = announce_all([[session_id, scope]])

      # @param notices [Enumerable<Array(Integer, Symbol)>] session id and scope, at least one
      def self.announce_all(notices)
        database = Store::Database.connection
        given = database.values(notices.map { |notice| [Store::Notices.payload(*notice)] }).as(:given, [:payload])
        database.from(given).select_map(Sequel.function(:pg_notify, CHANNEL, :payload))
      end

      # @param text [String] JSON that is passed on to every device of a session; too long is not told
      def self.announce_ink(session_id, text)
        payload = JSON.generate([session_id, text])
        return if payload.bytesize > MOST_INK

        Store::Database.connection.get(Sequel.function(:pg_notify, INK, payload))
      end

      # @param on_notice [#call] session id, scope (Symbol), and the Core::Session::StepOn that was told with it, or nil
      # @param on_ink [#call] session id and what is passed on
      # @param on_return [#call] the connection is there (again); anything may have changed
      # @param look [Numeric] seconds between two looks whether to go on listening
      def initialize(on_notice:, on_return:, on_ink: ->(_session_id, _text) {}, look: 0.5)
        @look = look
        @on_ink = on_ink
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

      attr_reader :on_notice, :on_return, :on_ink

      def listen
        database = Store::Database.connect(Roost.settings.database_url, most: 1)
        database.listen([CHANNEL, INK], loop: ->(_connection) { throw :stop unless @running }, timeout: @look,
                                 after_listen: ->(_connection) { on_return.call }) do |channel, _pid, payload|
          hear(channel, *JSON.parse(payload))
        end
      rescue Sequel::DatabaseError, PG::Error
        sleep RETRY if @running
      ensure
        database&.disconnect
      end

      def hear(channel, session_id, said, step = nil)
        if channel == INK then on_ink.call(session_id, said)
        elsif SCOPES.include?(said)
          on_notice.call(session_id, said.to_sym, Core::Session::StepOn.from_document(step))
        end
      end
    end
  end
end
