# frozen_string_literal: true

module Roost
  module Operations
    # What a package of the school's own records would change in a teacher's classes. Nothing is saved.
    class CompareRoster
      FULL = "“%s” would have %d students; a class has at most #{Core::Roll::MOST} here.".freeze
      UNKNOWN = "This person is neither in users.csv nor known here."

      # What would become of a class. name:: as it is called here, or will be; row:: Store::Classes::Row, nil when it is
      # new; told:: Exchange::OneRoster::Told; gone:: whether it is put away; found:: Core::RosterDifference
      Change = Struct.new(:name, :row, :told, :gone, :found, keyword_init: true) do
        def group = told.group
      end

      # classes:: Array of Change; people:: Array of [Core::Student, Hash of field to what it becomes];
      # leavers:: Array of [Core::Student, Array of [id, name] of classes], who leave all of hers
      Comparison = Struct.new(:classes, :people, :leavers, keyword_init: true) do
        def empty? = people.empty? && leavers.empty? && classes.all? { |each| each.row && !each.gone && each.found.empty? }
      end

      # @param chosen [Exchange::OneRoster::Chosen]
      def initialize(account_id, chosen)
        @account_id = account_id
        @chosen = chosen
      end

      # @return [Core::Reading] of Comparison
      def call
        rows = rows_for(chosen.told)
        changes = chosen.told.map { |told| change(told, rows[told.group.id]) }
        full = changes.find { |each| each.found.many > Core::Roll::MOST }
        return Core::Reading.refused(format(FULL, full.name, full.found.many)) if full

        Core::Reading.ok(Comparison.new(classes: changes, **details(changes)).freeze)
      end

      # The same of one class, after others of the package have come in.
      # @return [Change]
      def anew(change) = change(change.told, change.row)

      private

      attr_reader :account_id, :chosen

      def classes = @classes ||= Store::Classes.new

      def students = @students ||= Store::Students.new

      # Which class of hers each is: known by its id, or one of that name that didn't come out of records.
      def rows_for(all)
        here = classes.of_roster(account_id, all.map { |told| told.group.id })
        free = classes.all(account_id).reject { |row| row.rostered || here.value?(row) }
        all.to_h do |told|
          row = here[told.group.id] || free.find { |each| told.group.title && each.name.casecmp?(told.group.title.strip) }
          free.delete(row)
          [told.group.id, row]
        end
      end

      def change(told, row)
        group = told.group
        present = row ? students.of_class(row.id) : []
        hers = students.known(account_id, but: row&.id)
        others = students.of_roster(told.students.map(&:id))
        known = (hers + others).uniq(&:id).reject { |student| present.any? { |each| each.id == student.id } }
        found = Core::RosterDifference.new(entries(told.students, present + known), bulk: chosen.bulk, said: told.leaving,
                                                                                 present: group.gone ? [] : present, known: known,
                                                                                 fixed: (known - hers).map(&:id))
        Change.new(name: row&.name || group.title, row: row, told: told, gone: group.gone && row&.mine, found: found).freeze
      end

      # The package may name somebody by id alone.
      def entries(people, known)
        by_id = known.to_h { |student| [student.sourced_id, student] }
        people.map do |person|
          named = person.given ? person : by_id[person.id]
          also = { sourced_id: person.id }
          next Core::Roll.entry(person.row, cells(named, person), also) if named

          Core::Roll::Entry.new(row: person.row, raw: person.id, name: nil, given: also, reason: UNKNOWN).freeze
        end
      end

      # @param named [Exchange::OneRoster::Person, Core::Student]
      def cells(named, person) = { given: named.given, family: named.family.to_s, number: person.number.to_s }

      # What a package of changes tells of people whom she has, whatever their class.
      def details(changes)
        leavers, stayers = told_of(changes).partition { |_, person| person.gone }
        leavers = leavers.map { |student, _| [student, places_of(student)] }
        stayers = stayers.map { |student, person| [student, changed(student, person)] }
        { leavers: leavers.reject { |_, places| places.empty? }, people: stayers.reject { |_, fields| fields.empty? } }
      end

      # @return [Array<Array(Core::Student, Exchange::OneRoster::Person)>] but for those who stand in a class's list
      def told_of(changes)
        seen = changes.flat_map { |each| each.found.roll.rows.filter_map { |row| row.student&.id } }
        told = chosen.people.to_h { |person| [person.id, person] }
        hers = students.known(account_id).reject { |student| seen.include?(student.id) }
        hers.filter_map { |student| told[student.sourced_id]&.then { |person| [student, person] } }
      end

      def places_of(student)
        taught = classes.all(account_id).to_set(&:id)
        students.classes_of(student.id).select { |place| taught.include?(place.first) }
      end

      def changed(student, person)
        entry = Core::Roll.entry(person.row, cells(person, person))
        entry.reason ? {} : { name: entry.name, **entry.given }.reject { |field, value| student.public_send(field).to_s == value }
      end
    end
  end
end
