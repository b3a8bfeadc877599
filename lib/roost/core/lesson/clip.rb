# frozen_string_literal: true

module Roost
  module Core
    # Sound or video on a slide: which stored file, the file with its captions (WebVTT) if
    # there is one, and the part to play in seconds from the start (nil for all of it).
    Clip = Struct.new(:file, :captions, :from, :to, keyword_init: true) do
      self::LONGEST = (0..36_000)

      def self.from_document(document)
        document && new(file: document.fetch("file"), captions: document["captions"], from: document["from"],
                        to: document["to"]).freeze
      end

      def with(**changes) = self.class.new(**to_h, **changes).freeze

      # @param from [String] as typed: seconds or minutes:seconds, empty for the start
      # @param to [String] likewise, empty for the end
      # @return [Reading] of the clip with that part to play
      def playing(from, to)
        part = [from, to].map { |raw| seconds(raw) }
        return Reading.refused("Type times as seconds or as minutes:seconds, like 1:25.") if part.include?(:unreadable)
        return Reading.refused("The part to play has to end after it begins.") if part.all? && part[0] >= part[1]

        Reading.ok(with(from: part[0], to: part[1]))
      end

      # Which part to play, as the end of an address.
      # Source: W3C Media Fragments URI 1.0, temporal dimension.
      def fragment = from || to ? "#t=#{from || 0}#{",#{to}" if to}" : ""

      def to_document = { "file" => file, "captions" => captions, "from" => from, "to" => to }

      private

      def seconds(raw)
        text = raw.to_s.strip
        return nil if text.empty?

        minutes, rest = text.match(/\A(?:(\d{1,3}):)?(\d{1,5})\z/)&.captures
        total = rest && ((minutes.to_i * 60) + rest.to_i)
        total && self.class::LONGEST.cover?(total) && (minutes.nil? || rest.to_i < 60) ? total : :unreadable
      end
    end
  end
end
