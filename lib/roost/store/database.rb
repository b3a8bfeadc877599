# frozen_string_literal: true

require "que"
require "sequel"

module Roost
  module Store
    # The connection to PostgreSQL, one pool a process. Idle connections are checked
    # before use, so that a database that was restarted is found again.
    module Database
      MIGRATIONS = File.join(Settings::ROOT, "db/migrate")

      class << self
        # @return [Sequel::Database]
        def connection = @connection ||= connect(Roost.settings.database_url).tap { |database| Que.connection = database }

        # Waits for a database that is starting, as it is after a fault.
        # @raise [Sequel::DatabaseConnectionError] when it takes no connection for so many seconds
        def await(seconds: 60)
          ending = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
          begin
            connection
          rescue Sequel::DatabaseConnectionError
            raise if Process.clock_gettime(Process::CLOCK_MONOTONIC) > ending

            sleep 0.2
            retry
          end
        end

        # Everything that the block asks goes over one connection, which is taken from the pool once.
        def hold(&block) = connection.synchronize(&block)

        # Threads that use the database: Puma's, the ticker's and the dispatcher's.
        def connect(url, most: Roost.settings.threads + Roost.settings.dispatchers + 3)
          Sequel.connect(url, max_connections: most, keep_reference: false).tap do |database|
            database.extension(:pg_json, :pg_array, :connection_validator)
            Sequel.extension(:pg_json_ops)
            database.pool.connection_validation_timeout = 5
          end
        end

        def migrate(target: nil)
          Sequel.extension(:migration)
          Sequel::Migrator.run(connection, MIGRATIONS, target: target)
        end

        # Lets go of every connection, before a fork or when the server has gone.
        def disconnect = @connection&.disconnect
      end
    end
  end
end
