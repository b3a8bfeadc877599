# frozen_string_literal: true

module Roost
  module Operations
    # A teacher stamps answers to one question: the words go to each student as a comment, and the mark with them, where there is
    # one. Also her own list of stamps, and a comment to several at once.
    class StampAnswers
      TOO_LONG = "That would make a comment longer than #{CommentAnswer::LIMIT} characters.".freeze
      GONE = "That stamp isn't in your list any more."
      # What there was before, to be put back. marks:: as MarkByHand gives it; comments:: Hash of seat id to text
      Before = Struct.new(:marks, :comments, keyword_init: true)

      # @param text [Object] the list as typed (Core::Grading::Stamp)
      # @return [Core::Reading] of Array of Core::Grading::Stamp
      def keep(account_id, text)
        Core::Grading::Stamp.read(text).map { |stamps| stamps.tap { Store::Stamps.new.keep(account_id, stamps) } }
      end

      # @param seat_ids [Array<Integer>]
      # @return [Core::Reading, nil] of Before; nil when she has no such session or question
      def call(account_id, session_id, slide_id, seat_ids, stamp_id)
        stamp = Store::Stamps.new.of(account_id).find { |each| each.id == stamp_id }
        return Core::Reading.refused(GONE) unless stamp

        Store::Stamps.new.transaction do
          given = stamp.mark ? seat_ids.to_h { |id| [id, stamp.mark] } : {}
          marked = given.empty? ? Core::Reading.ok({}) : MarkByHand.new.call(account_id, session_id, slide_id, given)
          next marked unless marked&.ok?

          comment(account_id, session_id, slide_id, seat_ids, stamp.words)&.map do |before|
            Before.new(marks: marked.value, comments: before).freeze
          end
        end
      end

      # Adds to what was written to each about their answer; all or nothing.
      # @return [Core::Reading, nil] of what was written before, by seat; nil when she has no such session, seat or question
      def comment(account_id, session_id, slide_id, seat_ids, words)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        record = row && Store::Records.new.of(row)
        return nil unless record && asked?(record, slide_id) && seat_ids.all? { |id| record.seat(id) }

        before = before(record, slide_id, seat_ids)
        longer = before.transform_values { |text| (text.split("\n") | words.split("\n")).join("\n") }
        return Core::Reading.refused(TOO_LONG) if longer.each_value.any? { |text| text.length > CommentAnswer::LIMIT }

        restore(account_id, session_id, slide_id, longer)
        Core::Reading.ok(before)
      end

      # Puts back what was written before.
      # @param comments [Hash{Integer=>String}] seat id to text
      def restore(account_id, session_id, slide_id, comments)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row

        record = Store::Records.new.of(row)
        comments.each do |seat_id, text|
          CommentAnswer.new.call(account_id, session_id, seat_id, slide_id, text, attempt: record.attempt(slide_id, seat_id))
        end
      end

      private

      def asked?(record, slide_id) = record.lesson.prompts.any? { |slide| slide.id == slide_id }

      # What was written to each about the attempt that counts.
      def before(record, slide_id, seat_ids)
        written = Store::Comments.new.of(seat_ids)
        seat_ids.to_h do |id|
          [id, written.fetch([id, slide_id], Core::Session::Comments::NONE).of(record.attempt(slide_id, id))]
        end
      end
    end
  end
end
