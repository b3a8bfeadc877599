# frozen_string_literal: true

module Roost
  module Operations
    # Does to a class what a list of students would change in it.
    class Enrol
      # @param account_id [Integer] of the teacher who brings those that are new
      # @param found [Core::ClassListDifference]
      def call(account_id, class_id, found)
        students.enrol(class_id, coming(account_id, class_id, found))
        found.changing.select(&:student).each { |row| change(class_id, row) }
        TellRunning.of_class(class_id)
      end

      private

      def students = @students ||= Store::Students.new

      # @return [Hash{Integer=>String}] ids of those who come in, to their groups
      def coming(account_id, class_id, found)
        fresh = found.of(:new)
        taken = students.of_class(class_id).map(&:shown_name)
        rows = fresh.map do |row|
          shown = row.entry.given[:shown_name] || Core::StudentName.shown(row.entry.name, taken)
          taken << shown
          row.entry.given.merge(name: row.entry.name, shown_name: shown)
        end
        ids = students.create(account_id, rows)
        ids.zip(fresh.map { |row| row.entry.given[:group] }).to_h
           .merge(found.of(:enters).to_h { |row| [row.student.id, row.entry.given[:group]] })
      end

      def change(class_id, row)
        students.change(row.student.id, row.changes.except(:group))
        students.regroup(class_id, row.student.id, row.changes[:group]) if row.changes[:group]
      end
    end
  end
end
