# frozen_string_literal: true

module Roost
  module Operations
    # A student's own copy of a session: its slides, what they gave, what was right and why. As long as the teacher lets
    # them have it, and once everything is over that could still be asked.
    class OwnCopy
      # pages:: [Page], the slides the student got
      # notes:: [String], theirs on what is on no page, as the card of a quiz
      Copy = Struct.new(:row, :pages, :share, :notes, keyword_init: true)
      # outcome:: Core::Session::Outcome, nil of a slide that asks nothing
      # note:: theirs, comment:: of the teacher on the answer; "" without one
      Page = Struct.new(:slide, :outcome, :note, :comment, keyword_init: true)

      # @param row [Store::Sessions::Row]
      # @param seat_id [Integer]
      # @return [Copy, nil] nil while there is none, or it is not allowed
      def call(row, seat_id)
        return nil unless OwnCopy.allowed?(row, seat_id)

        record = Store::Records.new.at_seat(row, seat_id)
        line = Core::Analysis::Results.new(record).line_of(seat_id)
        asked = record.asked_of(seat_id).map(&:id)
        slides = slides(row, seat_id, record.lesson).select { |slide| slide.prompt.nil? || asked.include?(slide.id) }
        comments = Store::Comments.new.of([seat_id])
        notes = Store::Notes.new.of_seat(seat_id).transform_values(&:text).reject { |_, text| text.empty? }
        pages = slides.map { |slide| page(record, slide, seat_id, notes, comments) }
        Copy.new(row: row, pages: pages, share: line&.share, notes: notes.except(*slides.map(&:id)).values).freeze
      end

      def self.allowed?(row, seat_id) = row.options.own_copy && OwnCopy.told?(row, seat_id)

      # Whether everything is over that could still be asked: a session is for the room by its end, for one alone as its
      # rules tell.
      def self.told?(row, seat_id)
        return false if row.deleted
        return !row.ended_at.nil? unless row.alone

        kept = Store::Sittings.new.latest_of_seat(seat_id)
        return false unless kept&.sitting&.over?(row.now)

        Core::Session::Views::Alone.told?(kept.sitting, !TakeSitting.task(row, seat_id).open, true)
      end

      private

      def page(record, slide, seat_id, notes, comments)
        Page.new(slide: slide, outcome: slide.prompt && record.outcome(slide.id, seat_id), note: notes.fetch(slide.id, ""),
                 comment: comments.fetch([seat_id, slide.id], "")).freeze
      end

      def slides(row, seat_id, lesson)
        return lesson.class_slides unless row.alone

        Store::Sittings.new.latest_of_seat(seat_id).sitting.slides.filter_map { |id| lesson.slide(id) }
      end
    end
  end
end
