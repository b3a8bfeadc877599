# frozen_string_literal: true

require "fileutils"

module Roost
  module Store
    # Sheets of student passes that are being drawn or lie ready, of each teacher and class the latest. What was drawn is kept
    # for an hour: passes open seats.
    class PassSheets < Repository
      Row = Struct.new(:id, :account_id, :class_id, :state, :pages, :done, :created_at, keyword_init: true) do
        def drawing? = state == "drawing"

        def ready? = state == "ready"
      end

      SECONDS = 3600

      # One that is being drawn goes on being drawn.
      # @return [Integer, nil] id; nil when there is nothing to do
      def begin_one(account_id, class_id, pages:)
        given = { account_id: account_id, class_id: class_id, pages: pages }
        transaction do
          database[:pass_sheets].where(given.except(:pages)).where(Sequel.lit("state <> 'drawing' OR NOT (?)", fresh)).delete
          database[:pass_sheets].insert_conflict.insert(given)
        end
      end

      # @return [Row, nil] nil also when it was there too long
      def of(account_id, class_id) = read(account_id: account_id, class_id: class_id)

      # @return [Row, nil]
      def find(id) = read(id: id)

      # @param changes [Hash] :done, :state
      def update(id, **changes) = database[:pass_sheets].where(id: id).update(changes)

      # Where it lies when it is ready.
      def path(id) = Roost.settings.var("passes", "#{id}.pdf")

      # What was drawn of a class, by whoever teaches it.
      def forget(class_id) = database[:pass_sheets].where(class_id: class_id, state: "ready").delete

      # @return [Integer] how many were there too long
      def forget_old
        database[:pass_sheets].where(Sequel.lit("NOT (?)", fresh)).delete
        kept = database[:pass_sheets].select_map(:id).map { |id| path(id) }
        FileUtils.rm_f(Dir[path("*")] - kept).length
      end

      private

      def fresh = Sequel.lit("created_at > clock_timestamp() - make_interval(secs => ?)", SECONDS)

      def read(**which)
        row = database[:pass_sheets].where(which).where(fresh).first
        row && Row.new(**row).freeze
      end
    end
  end
end
