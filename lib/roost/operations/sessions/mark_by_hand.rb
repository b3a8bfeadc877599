# frozen_string_literal: true

module Roost
  module Operations
    # A teacher gives marks for answers to one question, one at a time or to all who answered alike (rules.md, marks by hand).
    # What there was before is given back, so that it can be put there again.
    class MarkByHand
      MARKS = %w[0 1/4 1/2 3/4 1].freeze
      MOST = 2_000 # seats at a time
      NOT_A_MARK = "A mark is 0, ¼, ½, ¾ or 1."
      NOBODY = "Nobody of these gave an answer to that question."

      # @param given [Hash{Integer=>String}] seat id to one of MARKS, or "" to take it back
      # @return [Core::Reading, nil] of what there was before, as `given`; nil when she has no such session or question
      def call(account_id, session_id, slide_id, given)
        row, slide = question(account_id, session_id, slide_id)
        return nil unless slide
        return Core::Reading.refused(NOT_A_MARK) unless given.length <= MOST && (given.values - MARKS - [""]).empty?

        record = Store::Records.new.of(row)
        given = given.slice(*Core::Analysis::Marking.new(record, slide).given.keys)
        return Core::Reading.refused(NOBODY) if given.empty?

        before = given.keys.to_h { |id| [id, MarkByHand.name(record.hand_mark(slide_id, id))] }
        marks = given.to_h { |id, mark| [[id, record.attempt(slide_id, id)], (Rational(mark) unless mark.empty?)] }
        Store::HandMarks.new.put(row.id, slide_id, marks, account_id: account_id)
        Core::Reading.ok(before)
      end

      # Lets students see the marks of a question, or not any more.
      # @return [Core::Slide, nil] nil when she has no such session or question
      def release(account_id, session_id, slide_id, released)
        row, slide = question(account_id, session_id, slide_id)
        Store::HandMarks.new.release(row.id, slide_id, released) if slide
        slide
      end

      # @param mark [Rational, nil]
      # @return [String] one of MARKS, or ""
      def self.name(mark) = mark&.denominator == 1 ? mark.numerator.to_s : mark.to_s

      private

      # @return [Array(Store::Sessions::Row, Core::Slide), nil]
      def question(account_id, session_id, slide_id)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        slide = row && Store::Sessions.new.lesson_of(row).slide(slide_id)
        [row, slide] if slide&.prompt
      end
    end
  end
end
