# frozen_string_literal: true

module Roost
  module Operations
    # A teacher gives marks for answers to one question, one at a time or to all who answered alike (rules.md, marks by hand).
    # What there was before is given back, so that it can be put there again.
    class MarkByHand
      MOST = 2_000 # seats at a time
      NOBODY = "Nobody of these gave an answer to that question."
      TOO_MANY = "At most #{MOST} answers at once.".freeze

      # @param given [Hash{Integer=>String}] seat id to a mark as Core::Grading::HandMark writes it, or "" to take it back
      # @return [Core::Reading, nil] of what there was before, as `given`; nil when she has no such session or question
      def call(account_id, session_id, slide_id, given)
        row, slide = question(account_id, session_id, slide_id)
        return nil unless slide
        return Core::Reading.refused(TOO_MANY) if given.length > MOST

        MarkByHand.read(given, slide.prompt).and_then { |marks| put(row, slide, marks, account_id) }
      end

      # Lets students see the marks of a question, or not any more.
      # @return [Core::Slide, nil] nil when she has no such session or question
      def release(account_id, session_id, slide_id, released)
        row, slide = question(account_id, session_id, slide_id)
        Store::HandMarks.new.release(row.id, slide_id, released) if slide
        slide
      end

      # @param given [Hash{Integer=>String}]
      # @return [Core::Reading] of Hash of seat id to Core::Grading::HandMark or nil
      def self.read(given, prompt)
        by_text = given.values.uniq.to_h { |written| [written, Core::Grading::HandMark.read(written, prompt)] }
        by_text.values.find { |reading| !reading.ok? } ||
          Core::Reading.ok(given.transform_values { |written| by_text[written].value })
      end

      private

      def put(row, slide, marks, account_id)
        record = Store::Records.new.of(row)
        marks = marks.slice(*Core::Analysis::Marking.new(record, slide).given.keys)
        return Core::Reading.refused(NOBODY) if marks.empty?

        kept = Store::HandMarks.new
        keys = marks.keys.to_h { |id| [id, [id, record.attempt(slide.id, id)]] }
        before = kept.written(row.id, slide.id)
        kept.put(row.id, slide.id, marks.transform_keys(&keys), account_id: account_id)
        whose = record.seats.select { |seat| keys.key?(seat.id) }.map(&:student_id)
        Store::LookedAt.new.note(account_id, whose, :mark, said: "#{slide.name}, #{row.title}")
        Core::Reading.ok(keys.transform_values { |key| before[key]&.written(slide.prompt).to_s })
      end

      # @return [Array(Store::Sessions::Row, Core::Slide), nil]
      def question(account_id, session_id, slide_id)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        slide = row && Store::Sessions.new.lesson_of(row).slide(slide_id)
        [row, slide] if slide&.prompt
      end
    end
  end
end
