# frozen_string_literal: true

require "bigdecimal"

module Roost
  module Store
    # What teachers have said about the grades of their classes, and every change of it. A gradebook is of one teacher and one
    # class.
    class Gradebooks < Repository
      Rules = Core::Grading::Gradebook::Rules
      Category = Core::Grading::Gradebook::Category
      # session_id:: nil of an own column; possible, on_date:: of an own one; deleted:: whether it is taken out
      Column = Struct.new(:id, :session_id, :title, :on_date, :possible, :category_id, :weight, :absent_zero, :deleted,
                          keyword_init: true)
      # points:: Rational or nil
      Entry = Struct.new(:points, :excused, keyword_init: true)
      # by:: who changed it; student_id:: nil of what is not of one; about:: what of it; at:: epoch seconds
      Change = Struct.new(:by, :student_id, :about, :column_title, :before, :after, :at, keyword_init: true)
      MOST_CHANGES = 500

      # @return [Core::Grading::Gradebook::Rules]
      def rules(account_id, class_id)
        row = database[:gradebooks].where(account_id: account_id, class_id: class_id).first
        return Core::Grading::Gradebook::PLAIN unless row

        rest = Category.new(id: nil, name: "", weight: row[:weight].to_r, dropped: row[:dropped]).freeze
        Rules.new(of_all: row[:of_all], by_column: row[:by_column], rest: rest,
                  categories: categories(account_id, class_id)).freeze
      end

      # Holds a teacher's gradebook of a class until the transaction ends; it is made where there is none.
      def hold(account_id, class_id)
        about = { account_id: account_id, class_id: class_id }
        database[:gradebooks].insert_conflict.insert(about)
        database[:gradebooks].where(about).for_update.first
      end

      # @param rules [Rules] categories without an id are new, those that are not in it go
      def change_rules(account_id, class_id, rules)
        about = { account_id: account_id, class_id: class_id }
        database[:gradebooks].where(about).update(weight: decimal(rules.rest.weight), dropped: rules.rest.dropped,
                                                  of_all: rules.of_all, by_column: rules.by_column)
        kept = rules.categories.map(&:id).compact
        database[:grade_categories].where(about).exclude(id: kept).delete
        rules.categories.each do |each|
          columns = { name: each.name, weight: decimal(each.weight), dropped: each.dropped }
          known = each.id && database[:grade_categories].where(**about, id: each.id).update(columns)
          database[:grade_categories].insert(**about, **columns) unless known == 1
        end
      end

      # @return [Array<Column>] the own ones and those of sessions of which something was said; without what is taken out
      def columns(account_id, class_id)
        database[:grade_columns].where(account_id: account_id, class_id: class_id, deleted_at: nil).order(:id)
                                .map { |row| column(row) }
      end

      # @return [Column, nil] also one that is taken out
      def find(account_id, class_id, id)
        row = database[:grade_columns].where(account_id: account_id, class_id: class_id, id: id).first
        row && column(row)
      end

      # @return [Integer] id
      def create(account_id, class_id, about)
        database[:grade_columns].insert(account_id: account_id, class_id: class_id, **in_columns(about))
      end

      # The column of a session, made where there is none.
      # @return [Integer] id
      def of_session(account_id, class_id, session_id)
        about = { account_id: account_id, class_id: class_id, session_id: session_id }
        database[:grade_columns].insert_conflict(target: about.keys).insert(about)
        database[:grade_columns].where(about).get(:id)
      end

      # @param about [Hash] of columns
      def change(id, about) = database[:grade_columns].where(id: id).update(in_columns(about))

      # Takes a column out, or puts it back.
      def delete(id, deleted:)
        database[:grade_columns].where(id: id).update(deleted_at: deleted ? Sequel.function(:clock_timestamp) : nil)
      end

      # @param column_ids [Array<Integer>]
      # @return [Hash{Array(Integer, Integer)=>Entry}] column and student to what stands there
      def entries(column_ids)
        database[:grade_entries].where(column_id: column_ids).to_h do |row|
          [row.values_at(:column_id, :student_id), Entry.new(points: row[:points]&.to_r, excused: row[:excused]).freeze]
        end
      end

      # What stands about a student in own columns.
      # @param account_id [Integer, nil] of this teacher's gradebooks only
      # @return [Array<Array(Column, Entry)>]
      def of_student(student_id, account_id: nil)
        rows = database[:grade_entries].join(:grade_columns, id: :column_id).where(student_id: student_id, deleted_at: nil)
        rows = rows.where(account_id: account_id) if account_id
        rows.order(:on_date, :column_id).map do |row|
          [column(row), Entry.new(points: row[:points]&.to_r, excused: row[:excused]).freeze]
        end
      end

      # @param given [Hash{Integer=>Rational, Symbol, nil}] student to points, :excused or nothing
      def put(column_id, given)
        database[:grade_entries].where(column_id: column_id, student_id: given.keys).delete
        rows = given.compact.map do |student_id, value|
          excused = value == :excused
          { column_id: column_id, student_id: student_id, points: excused ? nil : decimal(value), excused: excused }
        end
        database[:grade_entries].multi_insert(rows)
      end

      # @param changes [Array<Hash>] :about, :before, :after, and :column_id, :column_title, :student_id where it is of one
      def note(account_id, class_id, changes, by:)
        whose = { account_id: account_id, class_id: class_id, by_id: by, column_id: nil, student_id: nil, column_title: "" }
        database[:grade_changes].multi_insert(changes.map { |each| { **whose, **each } })
      end

      # @return [Array<Change>] the latest first
      def changes(account_id, class_id)
        changes = Sequel[:grade_changes]
        rows = database[:grade_changes].left_join(:accounts, id: changes[:by_id])
                                       .where(changes[:account_id] => account_id, changes[:class_id] => class_id)
                                       .reverse(changes[:id]).limit(MOST_CHANGES)
        rows.select(:student_id, :about, :column_title, :before, :after, Sequel[:accounts][:name].as(:by),
                    Repository.epoch(:changed_at).as(:at)).map { |row| Change.new(**row).freeze }
      end

      private

      def categories(account_id, class_id)
        database[:grade_categories].where(account_id: account_id, class_id: class_id).order(:id).map do |row|
          Category.new(id: row[:id], name: row[:name], weight: row[:weight].to_r, dropped: row[:dropped]).freeze
        end.freeze
      end

      def column(row)
        about = row.slice(:id, :session_id, :title, :on_date, :category_id, :absent_zero)
        Column.new(**about, possible: row[:possible]&.to_r, weight: row[:weight].to_r, deleted: !row[:deleted_at].nil?).freeze
      end

      def in_columns(about) = about.transform_values { |value| value.is_a?(Rational) ? decimal(value) : value }

      def decimal(number) = BigDecimal(number, 8)
    end
  end
end
