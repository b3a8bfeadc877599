# frozen_string_literal: true

module Roost
  module Store
    # What the repositories share: the connection, and times as seconds since the
    # epoch by the database clock, the only clock there is.
    class Repository
      def self.epoch(column) = Sequel.function(:date_part, "epoch", column)

      def initialize(database = Database.connection)
        @database = database
      end

      # Seconds since the epoch.
      def now = database.get(Repository.epoch(Sequel.function(:clock_timestamp)))

      def transaction(&block) = database.transaction(&block)

      private

      attr_reader :database
    end
  end
end
