# frozen_string_literal: true

module Roost
  module Operations
    # Keeps a file that a teacher has to look through before it is taken in.
    class HoldUpload
      # @param io [File]
      # @return [String] a ticket for finding it again
      def call(account_id, io) = Store::PendingUploads.new.keep(account_id, io)
    end
  end
end
