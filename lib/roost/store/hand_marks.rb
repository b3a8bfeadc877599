# frozen_string_literal: true

module Roost
  module Store
    # Marks that teachers give by hand, a row a seat, question and attempt; and of which questions students may see them.
    class HandMarks < Repository
      # @param seat_id [Integer, nil] only of this seat
      # @param released [Boolean] only those that students may see
      # @return [Hash{Array(String, Integer)=>Hash{Integer=>Rational}}] slide and attempt to seat id to mark
      def of(session_id, seat_id: nil, released: false)
        rows = database[:hand_marks].where({ session_id: session_id, seat_id: seat_id }.compact)
        rows = rows.where(slide_id: slides_released(session_id)) if released
        rows.each_with_object({}) do |row, found|
          (found[row.values_at(:slide_id, :attempt)] ||= {})[row[:seat_id]] = Rational(row[:mark_num], row[:mark_den])
        end
      end

      # @return [Hash{Array(Integer, Integer)=>Core::Grading::HandMark}] seat and attempt to what was given to a question
      def written(session_id, slide_id)
        database[:hand_marks].where(session_id: session_id, slide_id: slide_id)
                             .to_h { |row| [row.values_at(:seat_id, :attempt), HandMarks.read(row)] }
      end

      # What students may see of what they were marked by hand.
      # @param seat_ids [Array<Integer>]
      # @return [Array<Array(Integer, String, Core::Grading::HandMark)>] seat, slide and mark, the latest first
      def seen(seat_ids)
        released = { Sequel[:released_marks][:session_id] => Sequel[:hand_marks][:session_id],
                     Sequel[:released_marks][:slide_id] => Sequel[:hand_marks][:slide_id] }
        rows = database[:hand_marks].where(seat_id: seat_ids).where(database[:released_marks].where(released).select(1).exists)
        rows.reverse(:marked_at).map { |row| [row[:seat_id], row[:slide_id], HandMarks.read(row)] }
      end

      # What a seat was given by the levels of rubrics.
      # @param released [Boolean] only what students may see
      # @return [Hash{String=>Array<Integer>}] slide to levels, of the latest attempt
      def levels(session_id, seat_id, released: false)
        rows = database[:hand_marks].where(session_id: session_id, seat_id: seat_id).exclude(levels: nil).order(:attempt)
        rows = rows.where(slide_id: slides_released(session_id)) if released
        rows.to_h { |row| [row[:slide_id], row[:levels].to_a] }
      end

      # @return [Core::Grading::HandMark] of a row with a mark
      def self.read(row)
        Core::Grading::HandMark.new(mark: Rational(row[:mark_num], row[:mark_den]), levels: row[:levels]&.to_a).freeze
      end

      # @return [Hash] columns of a mark
      def self.columns(mark)
        { mark_num: mark.mark.numerator, mark_den: mark.mark.denominator,
          levels: mark.levels && Sequel.pg_array(mark.levels, :integer) }
      end

      # @param marks [Hash{Array(Integer, Integer)=>Core::Grading::HandMark, nil}] seat and attempt to mark; nil takes it back
      # @param account_id [Integer] who gives them
      def put(session_id, slide_id, marks, account_id:)
        transaction do
          marks.each do |(seat_id, attempt), mark|
            answer = { session_id: session_id, seat_id: seat_id, slide_id: slide_id, attempt: attempt }
            mark ? give(answer, mark, account_id) : database[:hand_marks].where(answer).delete
          end
          Evidence.new(database).changed(session_id)
        end
      end

      # Lets students see the marks of a question, or not any more.
      def release(session_id, slide_id, released)
        question = { session_id: session_id, slide_id: slide_id }
        transaction do
          released ? database[:released_marks].insert_conflict.insert(question) : database[:released_marks].where(question).delete
          Evidence.new(database).changed(session_id)
        end
      end

      # @return [Array<Integer>] ids of the sessions of a teacher that have ended, and in which somebody was marked by hand
      def sessions(account_id)
        ended = database[:sessions].where(account_id: account_id, deleted_at: nil).exclude(ended_at: nil).select(:id)
        database[:hand_marks].where(session_id: ended).distinct.select_map(:session_id)
      end

      # @return [Array<String>] ids of the slides whose marks students may see
      def released(session_id) = slides_released(session_id).select_map(:slide_id)

      private

      def slides_released(session_id) = database[:released_marks].where(session_id: session_id).select(:slide_id)

      def give(answer, mark, account_id)
        given = { **HandMarks.columns(mark), account_id: account_id, marked_at: Sequel.function(:clock_timestamp) }
        database[:hand_marks].insert_conflict(target: %i[seat_id slide_id attempt], update: given).insert(**answer, **given)
      end
    end
  end
end
