# frozen_string_literal: true

module Roost
  module Store
    # What is really taken away, from every table: what was deleted long enough ago, and what has had
    # its time. Deleting a session takes its seats with their names, answers and events with it, and
    # deleting a lesson its slides and history, since the tables say so.
    class Purge < Repository
      # Tables and their columns in which names of files stand.
      HOLDERS = [%i[lesson_slides document], %i[lesson_revisions slides], %i[sessions lesson], %i[bank_questions document],
                 %i[answers value], %i[answers typed], %i[answers conflicting_version]].freeze
      FILE = "[0-9a-f]{64}\\.[a-z0-9]{3,4}"
      # A file that was uploaded this many hours ago may be about to be used.
      FRESH = 24

      # @param days [Integer] since it was deleted
      # @return [Hash{Symbol=>Integer}] table to how many rows
      def deleted(days)
        gone = %i[sessions lessons bank_questions classes].to_h do |table|
          [table, database[table].where(deleted_at: ..ago(days)).delete]
        end
        gone.merge(sessions: gone[:sessions] + outlived, students: students(days))
      end

      # Mails, links and counts whose time is over, and names that were stopped.
      # @return [Hash{Symbol=>Integer}] as #deleted
      def expired(days)
        { outbox_mails: [:sent_at, days], sign_ups: [:created_at, SignIns::LINK_GOOD], counters: [:expires_at, 0],
          sign_in_devices: [:last_at, SignIns::REMEMBERED], account_active_session_keys: [:last_use, days],
          account_password_reset_keys: [:deadline, 0], stopped_names: [:at, 1],
          invitations: [:created_at, School::INVITED_FOR], set_up_keys: [:created_at, 1],
          looked_at: [:at, LookedAt::KEPT] }
          .to_h { |table, (column, age)| [table, database[table].where(column => ..ago(age)).delete] }
      end

      # Takes files out that stand in no lesson, session, bank or answer.
      # @return [Array<String>] their names
      def unused_media
        database[:media].where { created_at < Sequel.lit("now() - make_interval(hours => ?)", FRESH) }
                        .exclude(file: used_files).returning(:file).delete.map { |row| row[:file] }
      end

      # @return [Array<String>] all that are kept
      def media = database[:media].select_map(:file)

      private

      # Sessions older than the school keeps them.
      # @return [Integer] how many
      def outlived
        keep = database[:school].get(:keep_days)
        keep ? database[:sessions].where(ended_at: ..ago(keep)).delete : 0
      end

      # Those deleted, and those whose last class is gone. What they did stays, without their names; what they noted for
      # themselves and what was written to them goes.
      # @return [Integer] how many
      def students(days)
        nowhere = database[:students].left_join(:enrolments, student_id: :id).where(class_id: nil).select(Sequel[:students][:id])
        going = database[:students].where(Sequel.|({ deleted_at: ..ago(days) }, { id: nowhere })).select_map(:id)
        Seats.new(database).forget(database[:seats].where(student_id: going).select_map(:id))
        database[:students].where(id: going).delete
      end

      def ago(days) = Sequel.lit("now() - make_interval(days => ?)", days)

      def used_files
        HOLDERS.map { |table, column| named_in(table, column) }.reduce { |all, each| all.union(each, from_self: false) }
      end

      def named_in(table, column)
        found = Sequel.function(:regexp_matches, Sequel.cast(column, String), FILE, "g")
        database.from(database[table].select(found.as(:found))).select(Sequel.lit("found[1]").as(:file))
      end
    end
  end
end
