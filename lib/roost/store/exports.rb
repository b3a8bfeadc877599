# frozen_string_literal: true

require "fileutils"

module Roost
  module Store
    # Files that are being made in the background or lie ready, of each teacher and thing the latest. They are kept for an hour.
    class Exports < Repository
      Row = Struct.new(:id, :account_id, :kind, :subject_id, :state, :parts, :done, :created_at, keyword_init: true) do
        def making? = state == "making"

        def ready? = state == "ready"
      end

      SECONDS = 3600

      # One that is being made goes on being made.
      # @return [Integer, nil] id; nil when there is nothing to do
      def begin_one(account_id, kind, subject_id)
        given = { account_id: account_id, kind: kind, subject_id: subject_id }
        transaction do
          database[:exports].where(given).where(Sequel.lit("state <> 'making' OR NOT (?)", fresh)).delete
          database[:exports].insert_conflict.insert(given)
        end
      end

      # @return [Integer] how many are being made for somebody
      def making(account_id) = database[:exports].where(account_id: account_id, state: "making").where(fresh).count

      # @return [Row, nil] nil also when it was there too long
      def of(account_id, kind, subject_id) = read(account_id: account_id, kind: kind, subject_id: subject_id)

      # @return [Row, nil]
      def find(id) = read(id: id)

      # @param changes [Hash] :parts, :done, :state
      def update(id, **changes) = database[:exports].where(id: id).update(changes)

      # Where it lies when it is ready.
      def path(id) = Roost.settings.var("exports", id.to_s)

      # What was made of a thing, by whoever asked for it, is good no more.
      def forget(kind, subject_id) = database[:exports].where(kind: kind, subject_id: subject_id, state: "ready").delete

      # Nor is anything that was made for somebody.
      def forget_of(account_id) = database[:exports].where(account_id: account_id, state: "ready").delete

      # @return [Integer] how many were there too long
      def forget_old
        database[:exports].where(Sequel.lit("NOT (?)", fresh)).delete
        kept = database[:exports].select_map(:id).map { |id| path(id) }
        FileUtils.rm_f(Dir[path("*")] - kept).length
      end

      private

      def fresh = Sequel.lit("created_at > clock_timestamp() - make_interval(secs => ?)", SECONDS)

      def read(**which)
        row = database[:exports].where(which).where(fresh).first
        row && Row.new(**row).freeze
      end
    end
  end
end
