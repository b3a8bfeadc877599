# frozen_string_literal: true

module Roost
  module Operations
    # Remembers that a teacher has used a way to begin, so that the page of the day shows the others only.
    class NoteBegun
      # @param way [String] of Today::WAYS
      def call(account_id, way) = Store::Accounts.new.note_begun(account_id, way)
    end
  end
end
