# frozen_string_literal: true

require "json"

module Roost
  module Operations
    # Takes what comes from the teacher's pen, keeps it, and tells every device at once: no view is made anew for it.
    class DrawInk
      FULL = "This page is full. Take a blank one."
      NOT_UP = "The pen isn't out on that page."

      # A piece of a stroke.
      # @param form [Hash{String=>String}] see Core::Session::Ink.read
      # @return [Core::Reading, nil] of what was told; nil when she has no such session
      def draw(account_id, session_id, form)
        with_session(account_id, session_id) do |row|
          Core::Session::Ink.read(form).and_then do |part|
            next Core::Reading.refused(NOT_UP) unless row.state.inked.include?(part.page)

            ink = Store::Ink.new
            next Core::Reading.refused(FULL) if part.part.zero? && ink.full?(session_id, part.page)

            ink.keep(session_id, part)
            tell(session_id, { page: part.page, stroke: part.stroke, part: part.part, colour: part.colour, width: part.width,
                               points: part.points })
          end
        end
      end

      # A whole stroke goes.
      # @return [Core::Reading, nil] as above
      def erase(account_id, session_id, stroke)
        with_session(account_id, session_id) do
          next Core::Reading.refused(Core::Session::Ink::BROKEN) unless stroke.to_s.match?(Core::Session::Ink::STROKE)

          Store::Ink.new.erase(session_id, stroke)
          tell(session_id, { erase: stroke })
        end
      end

      # Points without leaving anything behind.
      # @param place [String] "x,y"
      # @return [Core::Reading, nil] as above
      def point(account_id, session_id, place)
        with_session(account_id, session_id) do
          next Core::Reading.refused(Core::Session::Ink::BROKEN) unless place.to_s.match?(/\A\d{1,5},\d{1,5}\z/)

          tell(session_id, { at: place.split(",").map(&:to_i) })
        end
      end

      private

      def with_session(account_id, session_id)
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id)
          next nil unless row
          next Core::Reading.refused("This session has ended.") if row.ended_at

          yield row
        end
      end

      def tell(session_id, what)
        Live::Bus.announce_ink(session_id, JSON.generate(what))
        Core::Reading.ok(what)
      end
    end
  end
end
