# frozen_string_literal: true

module Roost
  module Store
    # What the teacher's pen has left, page by page.
    class Ink < Repository
      # What is sent twice is kept once.
      # @param part [Core::Session::Ink::Part]
      def keep(session_id, part)
        database[:ink].insert_conflict
                      .insert(session_id: session_id, **part.to_h, points: Sequel.pg_array(part.points, :integer))
      end

      # Whether another stroke is one too many.
      def full?(session_id, page)
        database[:ink].where(session_id: session_id, page: page, erased_at: nil).count >= Core::Session::Ink::MOST_PIECES
      end

      # @return [Integer] how many parts of it there were
      def erase(session_id, stroke)
        database[:ink].where(session_id: session_id, stroke: stroke, erased_at: nil)
                      .update(erased_at: Sequel.function(:clock_timestamp))
      end

      # @return [Array<Core::Session::Ink::Stroke>] in the order in which they were begun
      def of(session_id, page)
        rows = database[:ink].where(session_id: session_id, page: page, erased_at: nil).order(:arrival)
                             .select(:stroke, :part, :colour, :width, :points)
        rows.to_a.group_by { |row| row[:stroke] }.map do |stroke, parts|
          pieces = parts.map { |row| [row[:part], row[:points].to_a] }.sort
          Core::Session::Ink::Stroke.new(stroke: stroke, **parts.first.slice(:colour, :width), parts: pieces).freeze
        end
      end

      # @return [Array<String>] pages that something is left on
      def pages(session_id) = database[:ink].where(session_id: session_id, erased_at: nil).distinct.select_map(:page)
    end
  end
end
