# frozen_string_literal: true

require "digest"
require "securerandom"
require "shrine"
require "shrine/storage/file_system"

module Roost
  module Store
    # Files that belong to slides, kept by what is in them: the name of a file is the
    # SHA-256 of its bytes and its type, so it never changes and is stored once.
    class Media < Repository
      FILE = /\A[0-9a-f]{64}\.(?:png|jpg|svg)\z/
      TYPES = { "png" => "image/png", "jpg" => "image/jpeg", "svg" => "image/svg+xml" }.freeze

      def initialize(database = Database.connection, folder: Roost.settings.var("media"))
        super(database)
        @storage = Shrine::Storage::FileSystem.new(folder)
      end

      # @param extension [String] a key of TYPES
      # @return [Core::Picture]
      def keep(bytes, extension:, width:, height:, account_id:)
        file = "#{Digest::SHA256.hexdigest(bytes)}.#{extension}"
        store(bytes, file) unless storage.exists?(file)
        database[:media].insert_conflict.insert(file: file, mime: TYPES.fetch(extension), width: width, height: height,
                                                bytes: bytes.bytesize, account_id: account_id)
        Core::Picture.new(file: file, width: width, height: height, alt: "").freeze
      end

      # @return [Array(String, String), nil] path on disk and type
      def find(file)
        return nil unless file.match?(FILE) && storage.exists?(file)

        [storage.path(file).to_s, TYPES.fetch(file.split(".").last)]
      end

      private

      attr_reader :storage

      # Under its name a file is whole or not there, whatever happens meanwhile.
      def store(bytes, file)
        draft = "#{file}.#{SecureRandom.hex(4)}"
        storage.upload(StringIO.new(bytes), draft)
        File.rename(storage.path(draft), storage.path(file))
      ensure
        storage.delete(draft) if storage.exists?(draft)
      end
    end
  end
end
