# frozen_string_literal: true

require "fileutils"
require "securerandom"

module Roost
  module Store
    # Files that wait for a teacher's yes: looked at, but not yet taken in. Kept for a day.
    class PendingUploads
      TICKET = /\A\h{32}\z/
      SECONDS = 24 * 3600

      def initialize(folder = Roost.settings.var("waiting", "x").delete_suffix("/x"))
        @folder = folder
      end

      # @param io [File]
      # @return [String] a ticket for finding it again
      def keep(account_id, io)
        forget_old
        ticket = SecureRandom.hex(16)
        io.rewind
        File.open(path(account_id, ticket), "wb", 0o600) { |file| IO.copy_stream(io, file) }
        ticket
      end

      # @return [String, nil] path of this teacher's file
      def find(account_id, ticket)
        found = ticket.to_s.match?(TICKET) && path(account_id, ticket)
        found if found && File.exist?(found)
      end

      # Takes a file out, so that what is in it comes in once; the block's value is given back,
      # and the file is put back when that is a refusal.
      # @yieldparam path [String]
      # @yieldreturn [Core::Reading]
      # @return [Core::Reading, nil] nil when this teacher has no such file, or it is taken
      def take(account_id, ticket)
        waiting = find(account_id, ticket)
        return nil unless waiting

        taken = "#{waiting}.taken"
        File.rename(waiting, taken)
        yield(taken).tap { |reading| reading&.ok? ? File.delete(taken) : File.rename(taken, waiting) }
      rescue Errno::ENOENT
        nil
      end

      # @return [Integer] how many files were there too long
      def forget_old
        FileUtils.rm_f(Dir[File.join(@folder, "*")].select { |path| old?(path) }).length
      end

      private

      # Another may take a file out meanwhile.
      def old?(path)
        File.mtime(path) < Time.now - SECONDS
      rescue Errno::ENOENT
        false
      end

      def path(account_id, ticket) = File.join(@folder, "#{account_id}-#{ticket}")
    end
  end
end
