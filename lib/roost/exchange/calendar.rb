# frozen_string_literal: true

module Roost
  module Exchange
    # A date for a calendar, as iCalendar (RFC 5545) has it.
    module Calendar
      MOST = 75 # bytes in a line

      # @param stamp [Float] when it is written; all times are epoch seconds
      # @return [String] a calendar of one event
      def self.event(uid:, title:, url:, opens_at:, closes_at:, stamp:)
        lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Amber Roost//EN", "BEGIN:VEVENT", "UID:#{uid}",
                 "DTSTAMP:#{time(stamp)}", "DTSTART:#{time(opens_at)}", "DTEND:#{time(closes_at)}", "SUMMARY:#{text(title)}",
                 "URL:#{url}", "DESCRIPTION:#{text(url)}", "END:VEVENT", "END:VCALENDAR"]
        lines.flat_map { |line| folded(line) }.join("\r\n") << "\r\n"
      end

      def self.time(epoch) = Time.at(epoch).utc.strftime("%Y%m%dT%H%M%SZ")

      def self.text(words) = words.gsub(/[\\;,]/) { |mark| "\\#{mark}" }.gsub("\n", "\\n")

      # Long lines go on in the next, between characters.
      def self.folded(line)
        rest = line.dup
        parts = []
        until rest.empty?
          part = rest.byteslice(0, MOST - (parts.empty? ? 0 : 1)).scrub("")
          parts << (parts.empty? ? part : " #{part}")
          rest = rest[part.length..]
        end
        parts
      end
      private_class_method :time, :text, :folded
    end
  end
end
