# frozen_string_literal: true

require "icalendar"

module Roost
  module Exchange
    # A date for a calendar, as iCalendar (RFC 5545) has it.
    module Calendar
      MAKER = "-//Amber Roost//EN"

      # @param stamp [Float] when it is written; all times are epoch seconds
      # @return [String] a calendar of one event
      def self.event(uid:, title:, url:, opens_at:, closes_at:, stamp:)
        times = { dtstamp: stamp, dtstart: opens_at, dtend: closes_at }.transform_values { |epoch| utc(epoch) }
        # What is open for a week takes nobody's time.
        parts = { uid: uid, summary: title, url: url, description: url, transp: "TRANSPARENT", **times }
        calendar = Icalendar::Calendar.new
        calendar.prodid = MAKER
        calendar.event { |event| parts.each { |name, value| event.public_send("#{name}=", value) } }
        calendar.to_ical
      end

      def self.utc(epoch) = Icalendar::Values::DateTime.new(Time.at(epoch).utc, "tzid" => "UTC")
      private_class_method :utc
    end
  end
end
