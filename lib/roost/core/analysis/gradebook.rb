# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # A class by what it did: what each student earned in each lesson and assignment, and of all of it together (rules.md,
      # grades). Percent, correct, points and grade are readings of the same marks.
      class Gradebook
        # One thing that was done. id:: of the session; kind:: :lesson or :assignment; at:: epoch seconds
        Column = Struct.new(:id, :title, :kind, :at, keyword_init: true)
        # What one student earned in it. share:: Rational, nil where nothing of theirs was marked; right, marked:: questions
        # points:: of rounds, or nil; waiting:: answers that are still to be marked
        Entry = Struct.new(:share, :right, :marked, :points, :waiting, keyword_init: true)
        # Of all of it. share:: Rational, nil where there is nothing; right, marked:: questions; points:: or nil
        # waiting:: still to be marked; dropped:: ids of the columns that don't count
        Total = Struct.new(:share, :right, :marked, :points, :waiting, :dropped, keyword_init: true)

        # A share on the school's scale: top × share, rounded to the step, halves up.
        # @param share [Rational]
        # @param top [Numeric]
        # @param step [Numeric]
        # @param steps [Array<Step>, nil]
        # @return [Rational]
        def self.grade(share, top:, step:, steps: nil)
          raw = Step.note(steps, :on_scale, top.to_r * share, share: share, top: top)
          Step.note(steps, :to_step, (raw / step.to_r).round(half: :up) * step.to_r, raw: raw, step: step)
        end

        # students:: Array of Student; columns:: Array of Column, the earliest first
        attr_reader :students, :columns

        # @param entries [Hash{Array(Integer, Integer)=>Entry}] student and session to what was earned; none of who was not there
        # @param drop [Integer] so many of each student's lowest don't count
        def initialize(students:, columns:, entries:, drop: 0)
          @students = students
          @columns = columns
          @entries = entries
          @drop = drop
        end

        # @return [Entry, nil] nil of who was not there
        def entry(student_id, column) = @entries[[student_id, column.id]]

        # Of all that counts: what was earned by what was reached. Whoever was not there, or of whom nothing is marked, loses
        # nothing by that.
        # @param steps [Array<Step>, nil]
        # @return [Total]
        def total(student_id, steps: nil)
          all = columns.filter_map { |column| (entry = entry(student_id, column)) && [column, entry] }
          counted, dropped = without_lowest(all)
          marked = counted.sum { |_, entry| entry.marked }
          earned = counted.sum { |_, entry| entry.share ? entry.share * entry.marked : 0 }
          points = counted.filter_map { |_, entry| entry.points }
          Total.new(share: share(earned, marked, dropped.length, steps), right: counted.sum { |_, entry| entry.right },
                    marked: marked, points: (points.sum if points.any?), waiting: all.sum { |_, entry| entry.waiting },
                    dropped: dropped.map { |column, _| column.id }).freeze
        end

        # Of a column, over those who have something in it.
        # @return [Rational, nil]
        def mean(column)
          shares = students.filter_map { |student| entry(student.id, column)&.share }
          Statistics.mean(shares) if shares.any?
        end

        private

        def share(earned, marked, dropped, steps)
          return nil unless marked.positive?

          Step.note(steps, :earned_of_all, earned, questions: marked, dropped: dropped)
          Step.note(steps, :share, earned / marked, sum: earned, questions: marked)
        end

        # Of equal ones the later stays, and one always does.
        def without_lowest(all)
          graded = all.select { |_, entry| entry.share }
          dropped = graded.each_with_index.sort_by { |(_, entry), place| [entry.share, place] }
                          .first([@drop, graded.length - 1].min.clamp(0..)).map(&:first)
          [all - dropped, dropped]
        end
      end
    end
  end
end
