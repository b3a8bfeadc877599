# frozen_string_literal: true

module Roost
  module Operations
    # What a package of the school's own records would change in a teacher's classes. Nothing is saved.
    class CompareRoster
      FULL = "“%s” would have %d students; a class has at most #{Core::ClassList::MOST} here.".freeze
      UNKNOWN = "This person is neither in users.csv nor known here."

      # What would become of a class. name:: as it is called here, or will be; row:: Store::Classes::Row, nil when it is
      # new; told:: Exchange::OneRoster::Told; gone:: whether it is put away; found:: Core::RosterDifference
      # details::  Hash of what is kept of the class to be given back, where that changes; nil where it doesn't
      # people::   Hash of ids of students to theirs, of those that change
      Change = Struct.new(:name, :row, :told, :gone, :found, :details, :people, keyword_init: true) do
        def group = told.group

        def empty? = row && !gone && found.empty? && details.nil? && people.empty?
      end

      # classes:: Array of Change; people:: Array of [Core::Student, Hash of field to what it becomes];
      # leavers:: Array of [Core::Student, Array of [id, name] of classes], who leave all of hers
      # namesakes:: Array of Namesake; details:: as of a Change, of those in people
      Comparison = Struct.new(:classes, :people, :leavers, :namesakes, :details, keyword_init: true) do
        def empty? = people.empty? && leavers.empty? && details.empty? && classes.all?(&:empty?)
      end

      # Somebody who has the name of a student of hers, and perhaps is that student. entry:: Core::ClassList::Entry;
      # same:: whether they are taken for one; places:: Array of [id, name] of the student's classes
      Namesake = Struct.new(:entry, :student, :same, :places, keyword_init: true) do
        def id = entry.given[:sourced_id]
      end

      # @param chosen [Exchange::OneRoster::Chosen]
      # @param same [Array<String>, nil] ids of those who are the person of that name whom she has; nil before she was asked:
      #   then who is in the class is taken to be the same, and who is known from elsewhere is not
      def initialize(account_id, chosen, same: nil)
        @account_id = account_id
        @chosen = chosen
        @same = same
      end

      # @return [Core::Reading] of Comparison
      def call
        rows = rows_for(chosen.told)
        changes = chosen.told.map { |told| change(told, rows[told.group.id]) }
        full = changes.find { |each| each.found.many > Core::ClassList::MOST }
        return Core::Reading.refused(format(FULL, full.name, full.found.many)) if full

        Core::Reading.ok(Comparison.new(classes: changes, namesakes: namesakes(changes), **besides(changes)).freeze)
      end

      # The same of one class, after others of the package have come in.
      # @return [Change]
      def anew(change) = change(change.told, change.row)

      private

      attr_reader :account_id, :chosen, :same

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
        found = difference(told, row)
        gone = told.group.gone && row&.mine && !row.archived
        Change.new(name: row&.name || told.group.title, row: row, told: told, gone: gone, found: found,
                   details: details(row, told), people: details_of(told.students, found)).freeze
      end

      def difference(told, row)
        present = row ? students.of_class(row.id) : []
        hers = students.known(account_id, but: row&.id)
        others = students.of_roster(told.students.map(&:id))
        known = (hers + others).uniq(&:id).reject { |student| present.any? { |each| each.id == student.id } }
        Core::RosterDifference.new(entries(told.students, present + known),
                                   bulk: chosen.bulk, said: told.leaving, coming: told.coming.map(&:id),
                                   present: told.group.gone ? [] : present, known: known,
                                   fixed: (known - hers).map(&:id), merge: merge(present))
      end

      def merge(present)
        ->(entry, student) { same ? same.include?(entry.given[:sourced_id]) : present.include?(student) }
      end

      # What the package does not tell stays as it was.
      def details(row, told)
        before = row ? classes.records(row.id) : {}
        after = before.merge(told.details, "teachers" => teachers(before, told)).reject { |_, said| said.empty? }
        after unless after == before || told.group.gone
      end

      # Of what has changed since, a package names only those who come and go.
      def teachers(before, told)
        named = told.details.fetch("teachers", [])
        return named if chosen.bulk

        (named + before.fetch("teachers", [])).uniq { |each| each["sourcedId"] }
                                              .reject { |each| told.former.include?(each["sourcedId"]) }
      end

      # Of the students whom she has.
      # @return [Hash{Integer=>Hash}]
      def details_of(people, found)
        told = people.to_h { |person| [person.id, person.details] }
        rows = found.roll.rows.select { |row| row.student && known_ids.include?(row.student.id) }
        changed_details(rows.to_h { |row| [row.student.id, told.fetch(row.entry.given[:sourced_id])] })
      end

      # @param told [Hash{Integer=>Hash}]
      def changed_details(told)
        before = students.records(told.keys)
        told.reject { |id, after| after.empty? || after == before[id] }
      end

      # Ids of all whom she has, as it was before anything was saved: who is new is kept with what is told of them.
      def known_ids = @known_ids ||= students.known(account_id).to_set(&:id)

      # The package may name somebody by id alone.
      def entries(people, known)
        by_id = known.to_h { |student| [student.sourced_id, student] }
        people.map do |person|
          named = person.given ? person : by_id[person.id]
          also = { sourced_id: person.id }
          next Core::ClassList.entry(person.row, cells(named, person), also) if named

          Core::ClassList::Entry.new(row: person.row, raw: person.id, name: nil, given: also, reason: UNKNOWN).freeze
        end
      end

      # @param named [Exchange::OneRoster::Person, Core::Student]
      def cells(named, person) = { given: named.given, family: named.family.to_s, number: person.number.to_s }

      # Each of the package once.
      def namesakes(changes)
        rows = changes.flat_map { |each| each.found.roll.rows }.select(&:namesake).uniq { |row| row.entry.given[:sourced_id] }
        rows.map do |row|
          Namesake.new(entry: row.entry, student: row.namesake, same: row.student == row.namesake,
                       places: places_of(row.namesake)).freeze
        end
      end

      # What a package of changes tells of people whom she has, whatever their class.
      def besides(changes)
        leavers, stayers = told_of(changes).partition { |_, person| person.gone }
        leavers = leavers.map { |student, _| [student, places_of(student)] }
        details = changed_details(stayers.to_h { |student, person| [student.id, person.details] })
        stayers = stayers.map { |student, person| [student, changed(student, person)] }
        { leavers: leavers.reject { |_, places| places.empty? }, people: stayers.reject { |_, fields| fields.empty? },
          details: details }
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
        entry = Core::ClassList.entry(person.row, cells(person, person))
        entry.reason ? {} : { name: entry.name, **entry.given }.reject { |field, value| student.public_send(field).to_s == value }
      end
    end
  end
end
