# frozen_string_literal: true

module Roost
  module Core
    # What a list of students would change in a class: looked at before anything is saved. The same
    # list again changes nothing.
    class RollDifference
      # entry::   Roll::Entry
      # state::   :new, :same, :changed, :enters (known already), :refused
      # student:: the one it is, of those there are; nil for somebody new
      # changes:: Hash of field to what it becomes
      Row = Struct.new(:entry, :state, :student, :changes, keyword_init: true)

      attr_reader :rows

      # @param entries [Array<Roll::Entry>]
      # @param present [Array<Student>] in the class
      # @param known [Array<Student>] who are or were in a class of the teacher, and are not in this one
      # @param apart [Array<Integer>] rows that are not the known person of that name
      def initialize(entries, present:, known: [], apart: [])
        @present = present
        @known = known
        @apart = apart
        @free = present.dup
        @rows = identified(entries).map { |entry, student| row(entry, student) }.freeze
      end

      # @return [Array<Row>] those that would change something
      def changing = rows.select { |row| %i[new changed enters].include?(row.state) }

      # @return [Array<Student>] in the class and not in the list; they stay
      def unlisted = @free

      def of(state) = rows.select { |row| row.state == state }

      private

      # Numbers first, since they tell apart who shares a name.
      # @return [Array<Array(Roll::Entry, Student)>] in the order of the entries
      def identified(entries)
        by_number = entries.to_h { |entry| [entry, entry.reason ? nil : take { |each| same_number?(each, entry) }] }
        entries.map { |entry| [entry, entry.reason ? nil : by_number[entry] || take { |each| same_name?(each, entry) }] }
      end

      def take(&block)
        found = @free.find(&block)
        @free -= [found] if found
        found
      end

      def same_number?(student, entry) = entry.given[:number] && student.number == entry.given[:number]

      def same_name?(student, entry)
        numbers = [student.number, entry.given[:number]].reject { |number| number.to_s.empty? }
        student.name.casecmp?(entry.name) && numbers.uniq.length < 2
      end

      def row(entry, student)
        return Row.new(entry: entry, state: :refused, student: nil, changes: {}).freeze if entry.reason

        elsewhere = student ? nil : elsewhere(entry)
        changes = student || elsewhere ? changes(entry, student || elsewhere) : {}
        state = if student then changes.empty? ? :same : :changed
                else elsewhere ? :enters : :new
                end
        Row.new(entry: entry, state: state, student: student || elsewhere, changes: changes.freeze).freeze
      end

      def elsewhere(entry)
        return nil if @apart.include?(entry.row)

        found = @known.find { |each| same_number?(each, entry) } || @known.find { |each| same_name?(each, entry) }
        @known -= [found] if found
        found
      end

      def changes(entry, student)
        { name: entry.name, **entry.given }.reject { |field, value| student.public_send(field).to_s == value }
      end
    end
  end
end
