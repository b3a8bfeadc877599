# frozen_string_literal: true

module Roost
  module Store
    # Who else may look at a lesson or edit it, and who is at work on it just now.
    class Sharing < Repository
      Share = Struct.new(:account_id, :name, :email, :may_edit, keyword_init: true)
      Editor = Struct.new(:name, :slide_id, keyword_init: true)

      # A page that has not been heard of for this many seconds is closed.
      GONE = 15

      # @return [Array<Share>] by name
      def of(lesson_id)
        database[:lesson_shares].where(lesson_id: lesson_id).join(:accounts, id: :account_id)
                                .select(:account_id, :name, :email, :may_edit).order(:name)
                                .map { |row| Share.new(**row).freeze }
      end

      def share(lesson_id, account_id, may_edit:)
        database[:lesson_shares].insert_conflict(target: %i[lesson_id account_id], update: { may_edit: may_edit })
                                .insert(lesson_id: lesson_id, account_id: account_id, may_edit: may_edit)
      end

      def unshare(lesson_id, account_id)
        database[:lesson_shares].where(lesson_id: lesson_id, account_id: account_id).delete
        database[:lesson_editors].where(lesson_id: lesson_id, account_id: account_id).delete
      end

      def open_to_all(lesson_id, open) = database[:lessons].where(id: lesson_id).update(open_to_all: open)

      def archive(lesson_id, archived)
        database[:lessons].where(id: lesson_id).update(archived_at: archived ? Sequel.function(:clock_timestamp) : nil)
      end

      def star(account_id, lesson_id, starred)
        stars = database[:lesson_stars]
        return stars.insert_conflict.insert(account_id: account_id, lesson_id: lesson_id) if starred

        stars.where(account_id: account_id, lesson_id: lesson_id).delete
      end

      # Notes that a teacher has a slide of a lesson before her.
      def at_work(lesson_id, account_id, slide_id)
        seen = { slide_id: slide_id.to_s, seen_at: Sequel.function(:clock_timestamp) }
        database[:lesson_editors].insert_conflict(target: %i[lesson_id account_id], update: seen)
                                 .insert(lesson_id: lesson_id, account_id: account_id, **seen)
      end

      # @return [Array<Editor>] the others that are at work on a lesson
      def editors(lesson_id, but:)
        fresh = Sequel.lit("seen_at > clock_timestamp() - make_interval(secs => ?)", GONE)
        database[:lesson_editors].where(lesson_id: lesson_id).where(fresh).exclude(account_id: but)
                                 .join(:accounts, id: :account_id).order(:name)
                                 .select(:name, :slide_id).map { |row| Editor.new(**row).freeze }
      end
    end
  end
end
