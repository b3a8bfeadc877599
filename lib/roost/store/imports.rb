# frozen_string_literal: true

require "fileutils"

module Roost
  module Store
    # Files of slides that are coming into a lesson, and how far each has come.
    class Imports < Repository
      Row = Struct.new(:id, :lesson_id, :account_id, :name, :file, :after_slide, :state, :pages, :done, :reason,
                       keyword_init: true) do
        def coming? = state == "coming"

        # The id of the slide that a page becomes: the same however often it is tried.
        # @param number [Integer] from 1
        def slide_id(number) = "i#{id}p#{number}"

        def slide_ids = (1..done).map { |number| slide_id(number) }
      end

      # Seconds for which one that has ended is still told of.
      TOLD_FOR = 600
      FILES_FOR = 24 * 3600
      LONG_AGO = Sequel.lit("timestamptz 'epoch'")

      # @return [Integer] id
      def create(**row) = database[:imports].insert(row)

      # @return [Row, nil]
      def find(id, lock: false)
        dataset = database[:imports].where(id: id)
        row = (lock ? dataset.for_update : dataset).first
        row && read(row)
      end

      # @return [Array<Row>] those under way and those that ended just now, latest first
      def of(lesson_id)
        told = Sequel.lit("ended_at IS NULL OR ended_at > now() - make_interval(secs => ?)", TOLD_FOR)
        database[:imports].where(lesson_id: lesson_id).where(told).reverse(:id).map { |row| read(row) }
      end

      def update(id, **changes)
        changes[:ended_at] = Sequel.function(:clock_timestamp) if changes.key?(:state)
        database[:imports].where(id: id).update(changes)
      end

      # Deletes files of imports that have ended, or of which nothing is known.
      # @return [Integer] how many
      def forget_files
        coming = database[:imports].where(state: "coming").select_map(:file).map { |file| File.basename(file, ".*") }
        old = Dir[Roost.settings.var("imports", "*")].select do |path|
          File.mtime(path) < Time.now - FILES_FOR && !coming.include?(File.basename(path, ".*"))
        end
        FileUtils.rm_f(old).length
      end

      # No longer told of: as if it had ended long ago.
      def dismiss(id) = database[:imports].where(id: id).update(ended_at: LONG_AGO)

      private

      def read(row) = Row.new(**row.slice(*Row.members)).freeze
    end
  end
end
