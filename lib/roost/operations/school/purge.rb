# frozen_string_literal: true

module Roost
  module Operations
    # Makes what was deleted really gone: rows of the database, and files nobody uses.
    class Purge
      # @param days [Integer] since something was deleted
      # @return [Hash{Symbol=>Integer}] what went, with how many
      def call(days: Roost.settings.purge_days)
        store = Store::Purge.new
        gone = store.transaction { store.deleted(days).merge(store.expired(days)) }
        gone.merge(media: Store::Media.new.purge(store), tiles: DrawTile.forget_old, waiting: Store::PendingUploads.new.forget_old,
                   imports: Store::Imports.new.forget_files)
      end
    end
  end
end
