# frozen_string_literal: true

require "date"
require "tzinfo"

module Roost
  module Exchange
    # Times as they are said at the school, in its own zone; kept as seconds since the epoch.
    class SchoolTime
      # As a browser's field for date and time has it.
      FORM = /\A(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::\d{2})?\z/
      NO_TIME = "Give a date and a time, such as 23 Nov 2026, 08:00."
      YEARS = (2000..2100)
      DAY = 86_400
      HOUR = 3_600

      ZONES = TZInfo::Timezone.all_country_zone_identifiers.grep(%r{/}).sort.freeze

      # @param chosen [String] a zone that is among them, whatever it is
      # @return [Hash{String=>Array<String>}] zones by the part of the world they are in
      def self.zones(chosen) = (ZONES | [chosen]).group_by { |zone| zone[%r{\A[^/]+}] }

      # @param zone [String] such as "Europe/London"
      def initialize(zone)
        @zone = TZInfo::Timezone.get(zone)
      end

      # Of an hour that comes twice in the night when clocks go back, the first; an hour that is left out when
      # they go forward is taken for the next.
      # @param text [String, nil] such as "2026-11-23T08:00"
      # @return [Reading] of epoch seconds
      def read(text)
        parts = text.to_s.match(FORM)&.captures&.map(&:to_i)
        return Core::Reading.refused(NO_TIME) unless parts && YEARS.cover?(parts.first) && Date.valid_date?(*parts.first(3))

        Core::Reading.ok(utc(Time.utc(*parts)))
      rescue ArgumentError
        Core::Reading.refused(NO_TIME)
      end

      # @return [String] for a field of a form
      def field(epoch) = local(epoch).strftime("%Y-%m-%dT%H:%M")

      # @return [String] for a field of a form: so many days later, at the same time of day, whatever clocks do meanwhile
      def field_days_after(epoch, days) = (local(epoch) + (days * DAY)).strftime("%Y-%m-%dT%H:%M")

      # @return [String] such as "Mon 23 Nov, 08:00"
      def say(epoch) = local(epoch).strftime("%a %-d %b, %H:%M")

      # @param time [Time, Numeric] epoch seconds
      # @return [Time] as clocks at the school show it
      def local(time) = @zone.utc_to_local(Time.at(time).utc)

      # @param time [Time, Numeric] epoch seconds
      # @return [Integer] seconds since the week began, by the clocks at the school
      def week_time(time) = local(time).then { |at| (at.wday * DAY) + (at.hour * HOUR) + (at.min * 60) + at.sec }

      # From next Monday at eight to its Friday at six; this Monday, where it is one.
      # @param now [Float] epoch seconds
      # @return [Array(Float, Float)]
      def next_week(now)
        today = local(now)
        monday = Time.utc(today.year, today.month, today.day) + ((8 - today.wday) % 7 * DAY)
        [utc(monday + (8 * HOUR)), utc(monday + (4 * DAY) + (18 * HOUR))]
      end

      # From now to six in the evening a week later.
      # @param now [Float] epoch seconds
      # @return [Array(Float, Float)]
      def week_from(now)
        today = local(now)
        [now - (now % 60), utc(Time.utc(today.year, today.month, today.day) + (7 * DAY) + (18 * HOUR))]
      end

      private

      def utc(local)
        @zone.local_to_utc(local, &:first).to_f
      rescue TZInfo::PeriodNotFound
        @zone.local_to_utc(local + HOUR).to_f
      end
    end
  end
end
