# frozen_string_literal: true

require "digest"
require "securerandom"
require "set"
require "shrine"
require "shrine/storage/file_system"
require "stringio"

module Roost
  module Store
    # Files that belong to slides, kept by what is in them: the name of a file is the
    # SHA-256 of its bytes and its type, so it never changes and is stored once.
    class Media < Repository
      TYPES = { "png" => "image/png", "jpg" => "image/jpeg", "svg" => "image/svg+xml", "mp3" => "audio/mpeg",
                "oga" => "audio/ogg", "weba" => "audio/webm", "m4a" => "audio/mp4", "wav" => "audio/wav",
                "mp4" => "video/mp4", "webm" => "video/webm", "vtt" => "text/vtt" }.freeze
      PURGING = 77_814 # of the lock that keeps keeping and purging apart
      FILE = /\A[0-9a-f]{64}\.(?:#{TYPES.keys.join("|")})\z/
      FILE_OF = /\A[0-9a-f]{64}\.\w+/ # of a file, or of one of its sizes
      SIZED = /\A([0-9a-f]{64}\.(?:png|jpg))\.(\d{1,4})\.webp\z/

      def initialize(database = Database.connection, folder: Roost.settings.var("media"))
        super(database)
        @storage = Shrine::Storage::FileSystem.new(folder)
      end

      # @param content [String, IO] bytes, or a readable file of them
      # @param extension [String] a key of TYPES
      # @param seat_id [Integer, nil] of the seat that sent it; nil when a teacher did
      # @return [String] the name of the stored file
      def keep(content, extension:, account_id:, width: nil, height: nil, seat_id: nil)
        io = content.is_a?(String) ? StringIO.new(content) : content
        file = "#{digest(io)}.#{extension}"
        transaction do
          database.get(Sequel.function(:pg_advisory_xact_lock_shared, PURGING))
          store(io, file) unless storage.exists?(file)
          note(file, mime: TYPES.fetch(extension), width: width, height: height, bytes: io.size, account_id: account_id,
                     shared: seat_id.nil?)
          database[:seat_pictures].insert_conflict.insert(seat_id: seat_id, file: file) if seat_id
        end
        file
      end

      # @return [Core::Picture] of a picture that is kept
      def keep_picture(content, extension:, width:, height:, account_id:, alt: "", seat_id: nil)
        file = keep(content, extension: extension, width: width, height: height, account_id: account_id, seat_id: seat_id)
        Core::Picture.new(file: file, width: width, height: height, alt: alt).freeze
      end

      # @return [Core::Picture, nil] a picture that teachers have uploaded
      def picture(file)
        row = file.match?(FILE) && database[:media].where(file: file, shared: true).exclude(width: nil).first
        row && Core::Picture.new(file: file, width: row[:width], height: row[:height], alt: "").freeze
      end

      # @return [Array(String, String), nil] path on disk and type of what a teacher uploaded
      def find_shared(file) = file.match?(FILE) && database[:media].where(file: file, shared: true).any? ? find(file) : nil

      # Whether a picture came from this seat.
      def sent_by?(seat_id, file) = database[:seat_pictures].where(seat_id: seat_id, file: file).any?

      # @return [Array(String, String), nil] path on disk and type
      def find(file)
        return nil unless file.match?(FILE) && storage.exists?(file)

        [storage.path(file).to_s, TYPES.fetch(file.split(".").last)]
      end

      # A picture in one of its widths, beside the picture itself.
      # @param width [Integer] pixels
      # @return [String, nil] path on disk; nil when it has not been made
      def size(file, width)
        name = "#{file}.#{width}.webp"
        storage.path(name).to_s if name.match?(SIZED) && storage.exists?(name)
      end

      # @param content [String] WebP
      def keep_size(file, width, content) = store(StringIO.new(content), "#{file}.#{width}.webp")

      # Deletes files nobody uses, and those of which nothing is known. Nothing can be kept meanwhile.
      # @param purge [Purge]
      # @return [Integer] how many
      def purge(purge)
        transaction do
          database.get(Sequel.function(:pg_advisory_xact_lock, PURGING))
          unused = purge.unused_media
          known = purge.media.to_set
          unknown = Dir.children(storage.directory).reject { |name| known.include?(name[FILE_OF]) }
          unknown.select { |name| unused.include?(name[FILE_OF]) || !young?(name) }.each { |name| storage.delete(name) }.length
        end
      end

      private

      attr_reader :storage

      def young?(name)
        File.mtime(storage.path(name)) > Time.now - (Purge::FRESH * 3600)
      rescue Errno::ENOENT
        true
      end

      # What a teacher has uploaded is shared, whoever sent the same before or after.
      def note(file, **about)
        either = Sequel.|(Sequel[:media][:shared], Sequel[:excluded][:shared])
        database[:media].insert_conflict(target: :file, update: { shared: either }).insert(file: file, **about)
      end

      def digest(io)
        sum = Digest::SHA256.new
        io.rewind
        while (chunk = io.read(1 << 20))
          sum << chunk
        end
        io.rewind
        sum.hexdigest
      end

      # Under its name a file is whole or not there, whatever happens meanwhile.
      def store(io, file)
        draft = "#{file}.#{SecureRandom.hex(4)}"
        storage.upload(io, draft)
        File.rename(storage.path(draft), storage.path(file))
        io.rewind
      ensure
        storage.delete(draft) if storage.exists?(draft)
      end
    end
  end
end
