# frozen_string_literal: true

module Roost
  module Store
    # Lessons as documents, with a revision for every save. Every read names the
    # account: a lesson that isn't this teacher's does not exist for her.
    class Lessons < Repository
      Record = Struct.new(:id, :lesson, :revision, :updated_at, :deleted, keyword_init: true)

      # Days for which a deleted lesson is offered back.
      DELETED_FOR = 30

      # @return [Array<Record>] latest first, without deleted ones
      def of(account_id)
        own(account_id).where(deleted_at: nil).reverse(:updated_at).map { |row| record(row) }
      end

      # @return [Array<Record>] those deleted in the last DELETED_FOR days, latest first
      def deleted_lately(account_id)
        own(account_id).where { deleted_at > Sequel.lit("now() - make_interval(days => ?)", DELETED_FOR) }
                       .reverse(:deleted_at).map { |row| record(row) }
      end

      # @return [Record, nil]
      def find(account_id, id, lock: false)
        dataset = own(account_id).where(id: id)
        row = (lock ? dataset.for_update : dataset).first
        row && record(row)
      end

      # @return [Integer] id
      def create(account_id, lesson)
        transaction do
          id = database[:lessons].insert(account_id: account_id, document: Sequel.pg_jsonb(lesson.to_document))
          keep_revision(id, 1, lesson, account_id, nil)
          id
        end
      end

      # Saves a lesson over the record it came from, and leaves a revision.
      # @param restored_from [Integer, nil] number of the revision this one brings back
      # @return [Record]
      def save(account_id, record, lesson, restored_from: nil)
        number = record.revision + 1
        keep_revision(record.id, number, lesson, account_id, restored_from)
        row = database[:lessons].where(id: record.id, revision: record.revision).returning
                                .update(document: Sequel.pg_jsonb(lesson.to_document), revision: number,
                                        updated_at: Sequel.function(:clock_timestamp)).first
        raise Sequel::Rollback, "lesson #{record.id} is not locked" unless row

        self.record(row)
      end

      # The revision before the present one in the teacher's eyes: an undo of an undo
      # goes further back.
      # @return [Array(Integer, Core::Lesson), nil] its number and the lesson
      def before(record)
        restored = database[:lesson_revisions].where(lesson_id: record.id, number: record.revision).get(:restored_from)
        number = (restored || record.revision) - 1
        document = database[:lesson_revisions].where(lesson_id: record.id, number: number).get(:document)
        document && [number, Core::Lesson.from_document(document)]
      end

      # @return [Boolean] false when there was nothing to delete or bring back
      def mark_deleted(account_id, id, deleted)
        stamp = deleted ? Sequel.function(:clock_timestamp) : nil
        own(account_id).where(id: id).update(deleted_at: stamp) == 1
      end

      private

      def own(account_id) = database[:lessons].where(account_id: account_id)

      def keep_revision(id, number, lesson, account_id, restored_from)
        database[:lesson_revisions].insert(lesson_id: id, number: number, account_id: account_id,
                                           restored_from: restored_from, document: Sequel.pg_jsonb(lesson.to_document))
      end

      def record(row)
        Record.new(id: row[:id], lesson: Core::Lesson.from_document(row[:document]), revision: row[:revision],
                   updated_at: row[:updated_at], deleted: !row[:deleted_at].nil?).freeze
      end
    end
  end
end
