# frozen_string_literal: true

require "marcel"

module Roost
  module Operations
    # Takes in sound, video or captions that a teacher uploaded or recorded. What a file is
    # is read from its first bytes, never from its name; it is kept as it came, and served
    # with the type found here.
    class KeepClip
      SOUND = { "audio/mpeg" => "mp3", "audio/ogg" => "oga", "audio/vorbis" => "oga", "audio/opus" => "oga",
                "audio/webm" => "weba", "video/webm" => "weba", "application/x-matroska" => "weba", "audio/mp4" => "m4a",
                "audio/x-m4a" => "m4a", "video/mp4" => "m4a", "audio/vnd.wave" => "wav", "audio/x-wav" => "wav" }.freeze
      VIDEO = { "video/mp4" => "mp4", "video/x-m4v" => "mp4", "video/webm" => "webm",
                "application/x-matroska" => "webm" }.freeze
      MEGABYTE = 1024 * 1024
      # What can be taken in: its types, most bytes, and what to say otherwise.
      KINDS = { "sound" => [SOUND, 30 * MEGABYTE, "a sound we can play. Use MP3, M4A, Ogg, WebM or WAV."],
                "spoken" => [SOUND, 30 * MEGABYTE, "a sound we can play. Use MP3, M4A, Ogg, WebM or WAV."],
                "video" => [VIDEO, 200 * MEGABYTE, "a video we can play. Use MP4 or WebM."] }.freeze
      A_SOUND = "is a sound, not a video. Add it under Sound."
      HEVC = "is a video in H.265 (HEVC), which many browsers can't play. Save it as MP4 in H.264."
      MATROSKA = "is a Matroska video (MKV), which browsers can't play. Save it as MP4 in H.264, or as WebM."
      MOST_CAPTIONS = MEGABYTE / 2

      # @param kind [String] a key of KINDS
      # @param io [IO] of the upload
      # @param name [String] the file's name, only for the refusal
      # @return [Core::Reading] of a Core::Clip
      def call(account_id, kind, io, name)
        types, most, otherwise = KINDS.fetch(kind)
        type = Marcel::MimeType.for(io)
        extension = types[type]
        return refuse(name, kind == "video" && SOUND.key?(type) ? A_SOUND : "is not #{otherwise}") unless extension
        return refuse(name, "is larger than #{most / MEGABYTE} MB. Make it shorter or smaller.") if io.size > most

        reason = unplayed(extension, io) if kind == "video"
        return refuse(name, reason) if reason

        keeping(name) { Core::Clip.new(file: media.keep(io, extension: extension, account_id: account_id)).freeze }
      end

      # @return [Core::Reading] of the name of the stored captions
      def captions(account_id, io, name)
        return refuse(name, "is too large for captions: 512 kB is the most.") if io.size > MOST_CAPTIONS

        text = io.read.force_encoding(Encoding::UTF_8).delete_prefix("\uFEFF")
        unless text.valid_encoding? && text.match?(/\AWEBVTT(?:[ \t].*)?(?:\r?\n|\z)/) && text.include?("-->")
          return refuse(name, "is not a file of captions. Captions are WebVTT: a text that begins with WEBVTT.")
        end

        keeping(name) { media.keep(text.b, extension: "vtt", account_id: account_id) }
      end

      private

      # Why browsers would not play a video; nil where they do.
      def unplayed(extension, io)
        return (HEVC if Exchange::VideoCoding.hevc?(io)) if extension == "mp4"

        MATROSKA unless Exchange::VideoCoding.webm?(io)
      end

      def media = Store::Media.new

      def refuse(name, why) = Core::Reading.refused("“#{File.basename(name.to_s)[0, 60]}” #{why}")

      def keeping(name)
        Core::Reading.ok(yield)
      rescue Errno::ENOSPC, Errno::EFBIG, Errno::EDQUOT
        refuse(name, "can't be stored: the disk is full. The slide is as it was; tell whoever runs this server.")
      end
    end
  end
end
