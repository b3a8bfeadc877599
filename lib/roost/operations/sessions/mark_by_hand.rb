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

        record = Store::Records.new.of(row)
        kept = Store::HandMarks.new
        done = MarkByHand.keep(given, record, slide, before: kept.written(row.id, slide.id)) do |marks|
          kept.put(row.id, slide.id, marks, account_id: account_id)
        end
        done.map do |before|
          whose = record.seats.select { |seat| before.key?(seat.id) }.map(&:student_id)
          Store::LookedAt.new.note(account_id, whose, :mark, said: "#{slide.name}, #{row.title}")
          before
        end
      end

      # Lets students see the marks of a question, or not any more.
      # @return [Core::Slide, nil] nil when she has no such session or question
      def release(account_id, session_id, slide_id, released)
        row, slide = question(account_id, session_id, slide_id)
        Store::HandMarks.new.release(row.id, slide_id, released) if slide
        slide
      end

      # Marks those who gave an answer, in the attempt that counts.
      # @param given [Hash{Integer=>String}] as #call
      # @param before [Hash{Array(Integer, Integer)=>Core::Grading::HandMark}] seat and attempt to what they have
      # @yieldparam marks [Hash{Array(Integer, Integer)=>Core::Grading::HandMark, nil}] to be put in its place
      # @return [Core::Reading] of what there was before, as `given`
      def self.keep(given, record, slide, before:)
        return Core::Reading.refused(TOO_MANY) if given.length > MOST

        read(given, slide.prompt).and_then do |marks|
          marks = marks.slice(*Core::Analysis::Marking.new(record, slide).given.keys)
          next Core::Reading.refused(NOBODY) if marks.empty?

          keys = marks.keys.to_h { |id| [id, [id, record.attempt(slide.id, id)]] }
          yield marks.transform_keys(&keys)
          Core::Reading.ok(keys.transform_values { |key| before[key]&.written(slide.prompt).to_s })
        end
      end

      # @return [Core::Reading] of Hash of seat id to Core::Grading::HandMark or nil
      def self.read(given, prompt)
        by_text = given.values.uniq.to_h { |written| [written, Core::Grading::HandMark.read(written, prompt)] }
        by_text.values.find { |reading| !reading.ok? } ||
          Core::Reading.ok(given.transform_values { |written| by_text[written].value })
      end
      private_class_method :read

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
