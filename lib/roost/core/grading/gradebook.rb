# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # A class by what it did: what each student earned in each lesson, assignment and column of the teacher's own, and of all of
      # it together (rules.md, grades). Percent, correct, points and grade are readings of the same marks.
      class Gradebook
        # One thing that was done.
        # id:: "s" and the id of a session, or "c" and that of an own column; session_id:: or nil
        # kind:: :lesson, :assignment or :own; at:: epoch seconds; possible:: points of an own one, Rational
        # category_id:: or nil; weight:: Rational; asked:: how many questions that count it had
        # absent_zero:: whether those who were not there earned nothing, rather than being left out
        Column = Struct.new(:id, :session_id, :title, :kind, :at, :possible, :category_id, :weight, :asked, :absent_zero,
                            keyword_init: true) do
          def own? = kind == :own
        end
        # What one student earned in it. share:: Rational, nil where nothing of theirs was marked; right, marked:: questions (of
        # an own column: points and those possible); points:: of rounds, or nil; waiting:: answers that are still to be marked
        # late:: answers that came late and don't count; excused:: it counts neither for nor against them
        # absent:: was not there, and has 0 for it
        Entry = Struct.new(:share, :right, :marked, :points, :waiting, :late, :excused, :absent, keyword_init: true) do
          self::EXCUSED = new(right: 0, marked: 0, waiting: 0, late: 0, excused: true).freeze

          # Whether it counts in any figure.
          def counts? = !share.nil? && !excused
        end
        # Of all of it. share:: Rational, nil where there is nothing; right, marked:: questions; points:: or nil
        # waiting:: still to be marked; dropped:: ids of the columns that don't count
        Total = Struct.new(:share, :right, :marked, :points, :waiting, :dropped, keyword_init: true)
        # Columns that are taken together. id:: nil of all that is in no category; dropped:: so many of each student's lowest
        # don't count
        Category = Struct.new(:id, :name, :weight, :dropped, keyword_init: true)
        # How it is put together. of_all:: by all questions asked rather than those reached; by_column:: each column counts alike
        # rest:: Category of what is in none, weight counts only where there are others; categories:: Array of Category
        Rules = Struct.new(:of_all, :by_column, :rest, :categories, keyword_init: true) do
          def all = [*categories, rest]
        end
        REST = Category.new(id: nil, name: "", weight: 1r, dropped: 0).freeze
        PLAIN = Rules.new(of_all: false, by_column: false, rest: REST, categories: [].freeze).freeze

        # students:: Array of Student; columns:: Array of Column, the earliest first
        attr_reader :students, :columns, :rules

        # @param entries [Hash{Array(Integer, String)=>Entry}] student and column to what was earned; none of who was not there
        # @param rules [Rules]
        # @param since [Hash{Integer=>Float}] student to when they came into the class (epoch seconds): before that nobody was
        #   absent
        def initialize(students:, columns:, entries:, rules: PLAIN, since: {})
          @since = since
          @students = students
          @columns = columns
          @entries = entries
          @rules = rules
        end

        # @return [Entry, nil] nil of who was not there
        def entry(student_id, column)
          found = @entries[[student_id, column.id]] || (absent(column) if absent?(student_id, column))
          found && rules.of_all ? of_all(found, column) : found
        end

        # Of all that counts. Whoever was not there, is excused, or of whom nothing is marked, loses nothing by that.
        # @param steps [Array<Step>, nil]
        # @return [Total]
        def total(student_id, steps: nil)
          all = columns.filter_map { |column| (entry = entry(student_id, column)) && [column, entry] }
          counted, dropped = without_lowest(all.select { |_, entry| entry.counts? })
          points = all.filter_map { |column, entry| entry.points unless dropped.include?(column.id) }
          Total.new(share: share(counted, dropped.length, steps), right: counted.sum { |_, entry| entry.right },
                    marked: counted.sum { |_, entry| entry.marked }, points: (points.sum if points.any?),
                    waiting: all.sum { |_, entry| entry.waiting }, dropped: dropped).freeze
        end

        # Of a column, over those who have something in it.
        # @return [Rational, nil]
        def mean(column)
          shares = students.filter_map { |student| (found = entry(student.id, column))&.counts? ? found.share : nil }
          Analysis::Statistics.mean(shares) if shares.any?
        end

        private

        def absent?(student_id, column) = column.absent_zero && column.at >= @since.fetch(student_id, column.at)

        # Nothing of what was asked.
        def absent(column)
          possible = column.own? ? column.possible : column.asked
          return nil unless possible&.positive?

          Entry.new(share: 0r, right: 0, marked: possible, waiting: 0, late: 0, excused: false, absent: true).freeze
        end

        # By all that was asked, reached or not.
        def of_all(entry, column)
          return entry if column.own? || !entry.counts? || entry.marked >= column.asked

          Entry.new(**entry.to_h, share: entry.share * entry.marked / column.asked, marked: column.asked).freeze
        end

        # @return [Array(Array, Array<String>)] what counts, and ids of the columns that don't
        def without_lowest(all)
          dropped = by_category(all).flat_map { |category, entries| lowest(entries, category.dropped) }
          [all.reject { |pair| dropped.include?(pair) }, dropped.map { |column, _| column.id }]
        end

        # Of equal ones the later stays, and one always does.
        def lowest(entries, many)
          entries.each_with_index.sort_by { |(_, entry), place| [entry.share, place] }
                 .first([many, entries.length - 1].min.clamp(0..)).map(&:first)
        end

        # @return [Array<Array(Category, Array)>] those that have something
        def by_category(all)
          known = rules.categories.map(&:id)
          grouped = all.group_by { |column, _| known.include?(column.category_id) ? column.category_id : nil }
          rules.all.filter_map { |category| (of = grouped[category.id]) && [category, of] }
        end

        def share(counted, dropped, steps)
          return pooled(counted, dropped, steps) if rules.categories.empty?

          parts = by_category(counted).map { |category, entries| [category, sum(entries)] }
                                      .select { |category, (_, possible)| category.weight.positive? && possible.positive? }
          return nil if parts.empty?

          shares = parts.map do |category, (earned, possible)|
            Step.note(steps, :of_category, earned / possible, name: category.name, earned: earned, possible: possible,
                                                              weight: category.weight)
          end
          weights = parts.map { |category, _| category.weight }
          weighted = shares.zip(weights).sum { |share, weight| share * weight }
          Step.note(steps, :weighted_mean, weighted / weights.sum, sum: weighted, weight: weights.sum)
        end

        def pooled(counted, dropped, steps)
          earned, possible = sum(counted)
          return nil unless possible.positive?

          weighted = rules.by_column || counted.any? { |column, _| column.weight != 1 }
          Step.note(steps, weighted ? :earned_weighted : :earned_of_all, earned, questions: possible, dropped: dropped)
          Step.note(steps, :share, earned / possible, sum: earned, questions: possible)
        end

        # @return [Array(Rational, Rational)] earned and possible
        def sum(entries)
          units = entries.map { |column, entry| column.weight * (rules.by_column ? 1 : entry.marked) }
          [entries.zip(units).sum { |(_, entry), unit| entry.share * unit }, units.sum]
        end
      end
    end
  end
end
