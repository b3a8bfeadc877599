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

      def transaction(**how, &block) = database.transaction(**how, &block)

      private

      attr_reader :database

      # A statement that is asked for all the time: written once, and planned by PostgreSQL once a connection.
      # @param name [Symbol] no other statement's
      # @param kind [Symbol] :select, :insert or :update
      # @param values [Hash] that are written
      # @yieldreturn [Sequel::Dataset] with placeholders (:$name), as the values may be, for what #call then gives
      # @return [Sequel::Dataset] whose #call takes a Hash
      def prepared(name, kind = :select, **values)
        database.prepared_statement(name) || yield.prepare(kind, name, *(values.any? ? [values] : []))
      end

      # @param names [Array<Symbol>] of columns
      # @return [Hash{Symbol=>Symbol}] each to its placeholder
      def placeholders(names) = names.to_h { |name| [name, :"$#{name}"] }
    end
  end
end
