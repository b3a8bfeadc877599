# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Where each student may go through the same questions several times, which of the attempts counts (rules.md, sittings):
      # one of them, or the last for the answers and the mean share of all.
      class CountedAttempts
        # attempt:: the number of the one that counts; share:: mean of all, where that counts and there are several; else nil
        Counted = Struct.new(:attempt, :share)

        # @param record [Record] with all attempts
        # @return [Hash{Integer=>Counted}] by seat, of those that began one
        def self.of(record) = new(record).all

        # Where the room was asked: of a round that was played several times the first, after which everybody had been told what
        # is right; of that, the last time that it was asked. What nobody answered or was told of then counts as it was next.
        # @param answers [Hash] of Record::Given
        # @return [Integer] number of the attempt
        def self.in_room(facts, answers, slide_id)
          plays = facts.openings.fetch(slide_id, []).group_by(&:play).values.map(&:last)
          (plays.find { |each| each.told_at || answers.key?([slide_id, each.attempt]) } || plays.first)&.attempt || 1
        end

        def initialize(record)
          @record = record
          @keyed = record.lesson.prompts.reject { |slide| record.set_aside?(slide.id) || !slide.prompt.keyed? }
          @counting = @keyed.select { |slide| slide.prompt.counts? }
        end

        def all
          attempts.to_h { |seat_id, numbers| [seat_id, Counted.new(chosen(seat_id, numbers), mean(seat_id, numbers)).freeze] }
        end

        private

        attr_reader :record

        # @return [Hash{Integer=>Array<Integer>}] seat id to the numbers of its attempts, in order
        def attempts
          numbers = Hash.new { |all, seat_id| all[seat_id] = [] }
          [record.answers, record.shown].each do |parts|
            parts.each { |(_, attempt), seats| seats.each_key { |seat_id| numbers[seat_id] |= [attempt] } }
          end
          record.sat.each_key { |seat_id, attempt| numbers[seat_id] |= [attempt] }
          numbers.transform_values(&:sort)
        end

        def chosen(seat_id, attempts)
          return attempts.last if attempts.one?

          case record.counts
          when "first" then attempts.first
          when "last", "mean" then attempts.last
          else attempts.max_by { |attempt| [marks(seat_id, attempt, choosing).sum, attempt] }
          end
        end

        # Questions by which the best is chosen.
        def choosing = record.rules.practice_chooses? ? @keyed : @counting

        # @return [Rational, nil]
        def mean(seat_id, attempts)
          return nil unless record.counts == "mean" && attempts.length > 1

          shares = attempts.filter_map do |attempt|
            marks = marks(seat_id, attempt, @counting)
            marks.sum / marks.length if marks.any?
          end
          shares.sum / shares.length if shares.any?
        end

        # @return [Array<Rational>] of the questions that were shown or answered, or that a sitting that has ended had
        def marks(seat_id, attempt, slides)
          given = record.sat.fetch([seat_id, attempt], [])
          slides.filter_map do |slide|
            record.outcome(slide.id, seat_id, attempt: attempt).mark || (0r if given.include?(slide.id))
          end
        end
      end
    end
  end
end
