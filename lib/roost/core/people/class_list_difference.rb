# frozen_string_literal: true

module Roost
  module Core
    # What a list of students would change in a class: looked at before anything is saved. The same
    # list again changes nothing.
    class ClassListDifference
      SURE_FIRST = %i[same_person? same_number? same_name?].freeze
      private_constant :SURE_FIRST

      # entry::   ClassList::Entry
      # state::   :new, :same, :changed, :enters (known already), :refused
      # student:: the one it is, of those there are; nil for somebody new
      # changes:: Hash of field to what it becomes
      # namesake:: the student who is meant by the name alone, or might be; nil where there is none, or more is known
      Row = Struct.new(:entry, :state, :student, :changes, :namesake, keyword_init: true)

      attr_reader :rows

      # @param entries [Array<ClassList::Entry>]
      # @param present [Array<Student>] in the class
      # @param known [Array<Student>] who are or were in a class of the teacher, and are not in this one
      # @param apart [Array<Integer>] rows that are not the known person of that name
      # @param fixed [Array<Integer>] ids of students of whom nothing is changed
      # @param merge [#call] takes an entry and a student who has the name alone in common with it, and says whether they are
      #   one person
      def initialize(entries, present:, known: [], apart: [], fixed: [], merge: ->(_entry, _student) { true })
        @known = known
        @apart = apart
        @fixed = fixed
        @merge = merge
        @namesakes = {}.compare_by_identity
        @free = present.dup
        @rows = identified(entries).map { |entry, student| row(entry, student) }.freeze
      end

      # @return [Array<Row>] those that would change something
      def changing = rows.select { |row| %i[new changed enters].include?(row.state) }

      # @return [Array<Student>] in the class and not in the list; they stay
      def unlisted = @free

      def of(state) = rows.select { |row| row.state == state }

      private

      # The surest first: ids from outside, then numbers, since they tell apart who shares a name.
      # @return [Array<Array(ClassList::Entry, Student)>] in the order of the entries
      def identified(entries)
        usable = entries.reject(&:reason)
        found = {}.compare_by_identity
        SURE_FIRST.each do |same|
          (usable - found.keys).each { |entry| take(same, entry)&.then { |student| found[entry] = student } }
        end
        entries.map { |entry| [entry, found[entry]] }
      end

      def take(same, entry)
        found = meant(same, entry, @free)
        @free -= [found] if found
        found
      end

      # @return [Core::Student, nil] nil also where somebody has the name alone in common and is somebody else
      def meant(same, entry, students)
        found = students.find { |student| send(same, student, entry) }
        return found unless found && same == :same_name?

        @namesakes[entry] ||= found
        found if @merge.call(entry, found)
      end

      def same_person?(student, entry) = entry.given[:sourced_id] && student.sourced_id == entry.given[:sourced_id]

      # Whom the school's own records know as two are two.
      def other_person?(student, entry) = entry.given[:sourced_id] && student.rostered && !same_person?(student, entry)

      def same_number?(student, entry)
        entry.given[:number] && student.number == entry.given[:number] && !other_person?(student, entry)
      end

      def same_name?(student, entry)
        numbers = [student.number, entry.given[:number]].reject { |number| number.to_s.empty? }
        student.name.casecmp?(entry.name) && numbers.uniq.length < 2 && !other_person?(student, entry)
      end

      def row(entry, student)
        return Row.new(entry: entry, state: :refused, changes: {}).freeze if entry.reason

        elsewhere = student ? nil : elsewhere(entry)
        changes = student || elsewhere ? changes(entry, student || elsewhere) : {}
        state = if student then changes.empty? ? :same : :changed
                else elsewhere ? :enters : :new
                end
        Row.new(entry: entry, state: state, student: student || elsewhere, changes: changes.freeze,
                namesake: @namesakes[entry]).freeze
      end

      def elsewhere(entry)
        return nil if @apart.include?(entry.row)

        found = SURE_FIRST.lazy.filter_map { |same| meant(same, entry, @known) }.first
        @known -= [found] if found
        found
      end

      def changes(entry, student)
        return {} if @fixed.include?(student.id)

        { name: entry.name, **entry.given }.reject { |field, value| student.public_send(field).to_s == value }
      end
    end
  end
end
