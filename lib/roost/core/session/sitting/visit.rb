# frozen_string_literal: true

module Roost
  module Core
    module Session
      # That a student had a slide before them in a sitting. It ends with the next, or five minutes after
      # the last sign of life (rules.md, sittings). Times are epoch seconds.
      Visit = Struct.new(:slide_id, :began_at, :seen_at, :ended_at, keyword_init: true) do
        self::SILENCE = 300 # seconds

        # Seconds, as far as is known now.
        def lasted(now) = [[ended_at || now, seen_at + self.class::SILENCE].min - began_at, 0].max

        # @param visits [Array<Visit>]
        # @return [Hash{String=>Float}] slide id to the seconds spent on it
        def self.spent(visits, now)
          visits.group_by(&:slide_id).transform_values { |of_slide| of_slide.sum { |visit| visit.lasted(now) } }
        end
      end
    end
  end
end
