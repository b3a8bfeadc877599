# frozen_string_literal: true

module Roost
  module Store
    # Words that teachers stamp answers with, each their own.
    class Stamps < Repository
      # @return [Array<Core::Grading::Stamp>] in the order in which they were typed
      def of(account_id)
        rows = database[:stamps].where(account_id: account_id).order(:id)
        rows.map { |row| Core::Grading::Stamp.new(**row.slice(:id, :words, :mark)).freeze }
      end

      # @param stamps [Array<Core::Grading::Stamp>] in place of all there were
      def keep(account_id, stamps)
        transaction do
          database[:stamps].where(account_id: account_id).delete
          database[:stamps].multi_insert(stamps.map { |each| { account_id: account_id, words: each.words, mark: each.mark } })
        end
      end
    end
  end
end
