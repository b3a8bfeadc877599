# frozen_string_literal: true

module Roost
  module Operations
    # Carries out a teacher's command on a session: locks the row, lets the core decide,
    # saves state and event, tells every web process; all or nothing.
    class CommandSession
      # @param account_id [Integer, nil] who gave it; nil is the clock
      # @param arguments [Hash{String=>String}] as sent
      # @return [Core::Reading, nil] of the next Core::Room::State; nil without such a session
      def call(session_id, command, arguments = {}, account_id: nil)
        sessions = Store::Sessions.new
        sessions.transaction do
          record = sessions.find(session_id, lock: true)
          next nil if record.nil? || record.deleted

          lesson = sessions.lesson(session_id)
          Core::Room::Commands.call(lesson, record.options, record.state, command, arguments, record.now).map do |state|
            unless state == record.state
              sessions.advance(record, state, command: command, arguments: arguments, account_id: account_id)
              Live::Bus.announce(session_id, :state)
            end
            state
          end
        end
      end
    end
  end
end
