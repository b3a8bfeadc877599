# frozen_string_literal: true

module Roost
  module Core
    # What the school's own records would change in a class: who comes in, of whom something changes, and who leaves.
    # Where they tell everything, those leave whom they brought once and do not name any more; whom a teacher added by
    # hand stays.
    class RosterDifference
      attr_reader :roll, :leaving

      # @param entries [Array<ClassList::Entry>] with :sourced_id
      # @param bulk [Boolean] whether they tell everything, and not what has changed since
      # @param said [Array<String>] ids of those who are said to leave
      # @param present [Array<Student>] in the class
      # @param known [Array<Student>] who may be meant, and are not in the class
      # @param coming [Array<String>] ids of those who begin later, and stay where they are in the class already
      # @param fixed [Array<Integer>] ids of students of whom nothing is changed
      # @param merge [#call] as in ClassListDifference
      def initialize(entries, bulk:, said:, coming:, present:, known:, fixed:, merge:)
        @roll = ClassListDifference.new(entries, present: present, known: known, fixed: fixed, merge: merge)
        gone = bulk ? @roll.unlisted.select(&:rostered) : @roll.unlisted.select { |student| said.include?(student.sourced_id) }
        @leaving = gone.reject { |student| coming.include?(student.sourced_id) }.freeze
      end

      def empty? = roll.changing.empty? && leaving.empty?

      # @return [Integer] how many will be in the class
      def many = roll.rows.count { |row| row.state != :refused } + roll.unlisted.length - leaving.length
    end
  end
end
