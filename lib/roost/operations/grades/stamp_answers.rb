# frozen_string_literal: true

module Roost
  module Operations
    # A teacher stamps answers to one question: the words go to each student as a comment, and the mark with them, where there is
    # one. Also her own list of stamps, and a comment to several at once.
    class StampAnswers
      GONE = "That stamp isn't in your list any more."
      # What there was before, to be put back. marks:: as MarkByHand gives it; comments:: Hash of seat id to text
      Before = Struct.new(:marks, :comments, keyword_init: true)

      # @param text [Object] the list as typed (Core::Grading::Stamp)
      # @return [Core::Reading] of Array of Core::Grading::Stamp
      def keep(account_id, text)
        Core::Grading::Stamp.read(text).map { |stamps| stamps.tap { Store::Stamps.new.keep(account_id, stamps) } }
      end

      # @param seat_ids [Array<Integer>]
      # @return [Core::Reading, nil] of Before; nil when she has no such session, seat or question
      def call(account_id, session_id, slide_id, seat_ids, stamp_id)
        stamp = Store::Stamps.new.of(account_id).find { |each| each.id == stamp_id }
        return Core::Reading.refused(GONE) unless stamp

        marks = stamp.mark ? seat_ids.to_h { |id| [id, stamp.mark] } : {}
        change(account_id, session_id, slide_id, marks, seat_ids) { |texts| added(texts, stamp.words) }
      end

      # Adds to what was written to each about their answer.
      # @return [Core::Reading, nil] as #call
      def comment(account_id, session_id, slide_id, seat_ids, words)
        change(account_id, session_id, slide_id, {}, seat_ids) { |texts| added(texts, words) }
      end

      # Puts back what there was.
      # @param before [Before]
      # @return [Core::Reading, nil] as #call
      def undo(account_id, session_id, slide_id, before)
        change(account_id, session_id, slide_id, before.marks, before.comments.keys) { before.comments }
      end

      private

      def added(texts, words) = texts.transform_values { |text| (text.split("\n") | words.split("\n")).join("\n") }

      # Marks and words, all or nothing.
      # @yieldparam texts [Hash{Integer=>String}] what is written to each about the attempt that counts
      # @yieldreturn [Hash{Integer=>String}] what is to be written
      # @return [Core::Reading, nil] as #call
      def change(account_id, session_id, slide_id, marks, seat_ids, &texts)
        done = nil
        Store::Comments.new.transaction do
          marked = marks.empty? ? Core::Reading.ok({}) : MarkByHand.new.call(account_id, session_id, slide_id, marks)
          done = marked&.and_then do |before|
            rewrite(account_id, session_id, slide_id, seat_ids, &texts)&.map do |comments|
              Before.new(marks: before, comments: comments).freeze
            end
          end
          raise Sequel::Rollback unless done&.ok?
        end
        done
      end

      # @return [Core::Reading, nil] of what was written before, by seat
      def rewrite(account_id, session_id, slide_id, seat_ids)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        record = row && Store::Records.new.of(row)
        return nil unless record && asked?(record, slide_id) && seat_ids.all? { |id| record.seat(id) }

        written = written(record, slide_id, seat_ids)
        read(yield(written)).map do |texts|
          texts.each { |id, text| Store::Comments.new.write(id, slide_id, text, attempt: record.attempt(slide_id, id)) }
          written
        end
      end

      # @return [Core::Reading] of Hash of seat id to text
      def read(texts)
        read = texts.transform_values { |text| Core::Text.read(text, limit: CommentAnswer::LIMIT, what: "A comment") }
        read.each_value.find { |reading| !reading.ok? } || Core::Reading.ok(read.transform_values(&:value))
      end

      def asked?(record, slide_id) = record.lesson.prompts.any? { |slide| slide.id == slide_id }

      def written(record, slide_id, seat_ids)
        known = Store::Comments.new.of(seat_ids)
        seat_ids.to_h do |id|
          [id, known.fetch([id, slide_id], Core::Session::Comments::NONE).of(record.attempt(slide_id, id))]
        end
      end
    end
  end
end
