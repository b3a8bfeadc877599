# frozen_string_literal: true

require "bigdecimal"
require "json"
require "securerandom"

module Roost
  module Store
    # Students, and who is in which class.
    class Students < Repository
      FIELDS = %i[name family shown_name number time_factor notes sourced_id].freeze

      # @return [Array<Core::Student>] in a class now, by name
      def of_class(class_id) = read(enrolled.where(class_id: class_id, ended_on: nil))

      # @return [Core::Student, nil] somebody who is in a class, or was
      def find(class_id, id) = read(enrolled.where(class_id: class_id, student_id: id)).first

      # @return [Array<Core::Student>] those who were taken out of a class, latest first
      def taken_out(class_id)
        read(enrolled.where(class_id: class_id).exclude(ended_on: nil).order(Sequel.desc(:ended_on), *sorted(family)))
      end

      # @param but [Integer, nil] a class: those who are in it now are left out
      # @return [Array<Core::Student>] who are or were in the classes a teacher teaches, each once
      def known(account_id, but: nil)
        theirs = Classes.new(database).all(account_id) + Classes.new(database).all(account_id, archived: true)
        read(enrolled.where(class_id: theirs.map(&:id))
                     .exclude(student_id: database[:enrolments].where(class_id: but, ended_on: nil).select(:student_id)))
          .uniq(&:id)
      end

      # @return [Array<Array(Integer, String)>] ids and names of the classes somebody is in
      def classes_of(id)
        database[:enrolments].join(:classes, id: :class_id).where(student_id: id, ended_on: nil, deleted_at: nil)
                             .order(Sequel[:classes][:name]).select_map([Sequel[:classes][:id], Sequel[:classes][:name]])
      end

      # @param ids [Array<Integer>]
      # @return [Hash{Integer=>String}] to their passes, of those who have one
      def passes(ids) = database[:students].where(id: ids).exclude(pass: nil).as_hash(:id, :pass)

      # @return [Core::Student, nil]
      def by_pass(pass)
        row = database[:students].where(pass: pass, deleted_at: nil).first
        row && read([row.merge(group_name: "")]).first
      end

      # @param ids [Array<String>] by which other programs know them
      # @return [Array<Core::Student>] of the whole school
      def of_roster(ids)
        read(database[:students].where(sourced_id: ids, deleted_at: nil).select_append(Sequel.as("", :group_name)))
      end

      # @return [Integer, nil] nil when somebody else has it
      def give_pass(id, pass)
        database.transaction(savepoint: true) { database[:students].where(id: id).update(pass: pass) }
      rescue Sequel::UniqueConstraintViolation
        nil
      end

      # @param ids [Array<Integer>]
      # @return [Hash{Integer=>Hash}] what other programs said of them, to be given back (Exchange::OneRoster::Details#of_person)
      def records(ids) = database[:students].where(id: ids).as_hash(:id, :records).transform_values(&:to_h)

      # @param all [Hash{Integer=>Hash}]
      def keep_records(all)
        return if all.empty?

        given = JSON.generate(all.map { |id, said| { id: id, records: said } })
        database[<<~SQL, given].update
          UPDATE students SET records = given.records
          FROM jsonb_to_recordset(?::jsonb) AS given(id bigint, records jsonb) WHERE students.id = given.id
        SQL
      end

      # @param account_id [Integer] of the teacher who brings them
      # @param all [Array<Hash>] with :name and :shown_name, perhaps more of FIELDS
      # @return [Array<Integer>] ids, in this order
      def create(account_id, all)
        return [] if all.empty?

        plain = { account_id: account_id, number: nil, time_factor: 1, notes: "", rostered: false }
        rows = all.map { |fields| { **plain, sourced_id: SecureRandom.uuid, **stored(fields) } }
        database[:students].multi_insert(rows, return: :primary_key)
      end

      # @param fields [Hash] some of FIELDS
      def change(id, fields) = fields.empty? || database[:students].where(id: id).update(stored(fields))

      # Puts people into a class, or back into it.
      # @param groups [Hash{Integer=>String}] ids to what group they are in; nil leaves that alone
      def enrol(class_id, groups)
        return if groups.empty?

        rows = groups.map { |id, group| { class_id: class_id, student_id: id, group_name: group.to_s } }
        kept = Sequel.case({ { Sequel[:excluded][:group_name] => "" } => Sequel[:enrolments][:group_name] },
                           Sequel[:excluded][:group_name])
        database[:enrolments].insert_conflict(target: %i[class_id student_id], update: { ended_on: nil, group_name: kept })
                             .multi_insert(rows)
      end

      # @return [Hash{Integer=>Date}] id to the day on which they came into the class
      def since(class_id) = database[:enrolments].where(class_id: class_id, ended_on: nil).select_hash(:student_id, :began_on)

      def regroup(class_id, id, group) = database[:enrolments].where(class_id: class_id, student_id: id).update(group_name: group)

      # Takes people out of a class; what they did there stays.
      def leave(class_id, ids)
        database[:enrolments].where(class_id: class_id, student_id: ids, ended_on: nil)
                             .update(ended_on: Sequel.lit("greatest(current_date, began_on)"))
      end

      # @return [Array<Core::Student>] who are in a class, or were, and are deleted but not purged yet
      def deleted_lately(class_id)
        recent = Sequel.lit("students.deleted_at > now() - make_interval(days => ?)", Roost.settings.purge_days)
        read(people.where(class_id: class_id).where(recent))
      end

      # Who comes back is known by an id of our own where the records have brought the person anew meanwhile.
      def mark_deleted(id, deleted)
        one = database[:students].where(id: id)
        return one.update(deleted_at: Sequel.function(:clock_timestamp)) if deleted

        again = database[:students].where(sourced_id: one.select(:sourced_id), deleted_at: nil).exclude(id: id).any?
        one.update(deleted_at: nil, **(again ? { sourced_id: SecureRandom.uuid, rostered: false } : {}))
      end

      private

      def enrolled = people.where(Sequel[:students][:deleted_at] => nil)

      def people
        database[:enrolments].join(:students, id: :student_id)
                             .order(*sorted(Sequel.case({ by_first_name => Sequel[:students][:name] }, family)), :id)
                             .select(:id, :name, :family, :shown_name, :number, :time_factor, :notes, :group_name, :rostered,
                                     :sourced_id)
      end

      # By family names and then whole names, or by whole names, in the order of the school's language.
      def sorted(first) = [first, Sequel[:students][:name]].map { |name| Sequel.lit(%(? COLLATE "#{collation}"), name) }

      def collation = School.new(database).collation

      # A single name stands for a family name.
      def family
        Sequel.function(:coalesce, Sequel.function(:nullif, Sequel[:students][:family], ""), Sequel[:students][:name])
      end

      def by_first_name = database[:classes].where(id: Sequel[:enrolments][:class_id]).select(:by_first_name)

      def read(dataset)
        people = dataset.map do |row|
          factor = row[:time_factor].to_s("F").sub(/\.?0+\z/, "")
          plain = row.slice(:id, :name, :family, :shown_name, :notes, :sourced_id, :rostered)
          Core::Student.new(**plain, time_factor: factor, number: row[:number].to_s, group: row[:group_name]).freeze
        end
        Core::StudentName.distinguished(people)
      end

      def stored(fields)
        fields = fields.slice(*FIELDS)
        fields[:number] = nil if fields[:number] == ""
        fields[:time_factor] = BigDecimal(fields[:time_factor]) if fields[:time_factor]
        fields[:rostered] = true if fields[:sourced_id]
        fields[:family] ||= Core::StudentName.family(fields[:name]) if fields[:name]
        fields
      end
    end
  end
end
