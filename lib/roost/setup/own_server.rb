# frozen_string_literal: true

require "fileutils"
require "sequel"

module Roost
  module Setup
    # What has to be so before the program runs on a database server of one's own (DATABASE_URL). The secret and the files lie
    # beside the program, so a second folder on the same database would read no seat's answers and show no pictures.
    class OwnServer
      class Refused < StandardError; end

      NO_SECRET = "Set ROOST_SESSION_SECRET (64 bytes and more, as hex): with DATABASE_URL it must not depend on this folder."
      POOLED = "DATABASE_URL leads to a connection pooler. Amber Roost needs connections of its own: give the address of " \
               "PostgreSQL."
      STRANGE = "The files in %s belong to another database. Set ROOST_VAR to the folder that belongs to this one."
      MISSING = "The files of this database are not in %s. Set ROOST_VAR to the folder that has them; several machines at once " \
                "are not supported."
      SECRET = 128 # characters, as hex
      MARK = ".database"
      LOOKED_AT = 20 # files

      def initialize(settings)
        @settings = settings
      end

      # @raise [Refused] with one sentence that says what to do
      def check
        return if settings.private_database?
        raise Refused, NO_SECRET if settings.given_secret.to_s.length < SECRET

        Sequel.connect(settings.database_url, max_connections: 1) do |database|
          raise Refused, POOLED if pooled?(database)

          files(database)
        end
      end

      private

      attr_reader :settings

      # A pooler tells a number of its own for that of the process at the other end.
      def pooled?(database)
        told = database.synchronize(&:backend_pid)
        told != database.get(Sequel.function(:pg_backend_pid))
      end

      def files(database)
        mark = settings.var("media", MARK)
        FileUtils.mkdir_p(File.dirname(mark))
        whose = database_mark(database)
        if File.exist?(mark)
          raise Refused, format(STRANGE, File.dirname(mark)) unless File.read(mark).strip == whose
        elsif database.table_exists?(:media) && elsewhere?(database, File.dirname(mark))
          raise Refused, format(MISSING, File.dirname(mark))
        else
          File.write(mark, "#{whose}\n")
        end
      end

      # Whether the files are not in the folder. One of before folders had marks has them.
      def elsewhere?(database, folder)
        latest = database[:media].reverse(:created_at).limit(LOOKED_AT).select_map(:file)
        latest.any? && latest.none? { |file| File.exist?(File.join(folder, file)) }
      end

      # The cluster and the database in it.
      def database_mark(database)
        cluster = database.get(Sequel.lit("(SELECT system_identifier FROM pg_control_system())"))
        "#{cluster}-#{database[:pg_database].where(datname: Sequel.function(:current_database)).get(:oid)}"
      end
    end
  end
end
