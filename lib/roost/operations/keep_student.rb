# frozen_string_literal: true

module Roost
  module Operations
    # Changes what is kept of a student, takes somebody out of a class or back in, moves people on.
    class KeepStudent
      # @param form [Hash] "name", "shown_name", "number", "group", "time_factor", "notes"
      # @return [Core::Reading, nil] of the student's id; nil unless she teaches a class that has them
      def change(account_id, class_id, id, form)
        teaching(account_id, class_id) do |students|
          student = students.find(class_id, id)
          next nil unless student

          cells = form.slice("name", "shown_name", "number", "group", "time_factor", "notes").transform_keys(&:to_sym)
          Core::Roll.fields({ name: student.name }.merge(cells)).map do |fields|
            fields[:shown_name] = Core::StudentName.shown(fields[:name], []) if fields[:shown_name] == ""
            students.regroup(class_id, id, fields.delete(:group)) if fields.key?(:group)
            students.change(id, fields)
            id
          end
        end
      end

      # Takes somebody out of a class, or back in; what they did there stays.
      # @return [Core::Student, nil] nil unless she teaches a class that has, or had, them
      def take_out(account_id, class_id, id, out: true)
        teaching(account_id, class_id) do |students|
          student = students.find(class_id, id)
          student && (out ? students.leave(class_id, [id]) : students.enrol(class_id, { id => nil }))
          student
        end
      end

      # Deletes a student, in all classes, or brings them back while they are not purged. What they did
      # stays in the results, without their name once they are purged.
      # @return [Integer, nil] the student's id; nil unless they are, or were, in a class of her own
      def delete(account_id, class_id, id, deleted: true)
        teaching(account_id, class_id) do |students|
          known = students.find(class_id, id) || students.deleted_lately(class_id).find { |student| student.id == id }
          next nil unless known && Store::Classes.new.find(account_id, class_id).mine

          students.mark_deleted(id, deleted)
          id
        end
      end

      # Puts students of one class into another, as at the end of a year.
      # @param ids [Array<Integer>] of those who are in the first; others are left alone
      # @param stay [Boolean] whether they stay in the first, too
      # @return [Core::Reading, nil] of how many went; nil unless she teaches both
      def move(account_id, class_id, to, ids, stay: false)
        teaching(account_id, class_id) do |students|
          next nil unless Store::Classes.new.find(account_id, to, lock: true)

          going = students.of_class(class_id).select { |student| ids.include?(student.id) }
          there = students.of_class(to).map(&:id) | going.map(&:id)
          next Core::Reading.refused("Choose who goes.") if going.empty?
          next Core::Reading.refused(format(FillClass::FULL, there.length)) if there.length > Core::Roll::MOST

          students.enrol(to, going.to_h { |student| [student.id, nil] })
          students.leave(class_id, going.map(&:id)) unless stay
          Core::Reading.ok(going.length)
        end
      end

      private

      def teaching(account_id, class_id)
        classes = Store::Classes.new
        classes.transaction { yield(Store::Students.new) if classes.find(account_id, class_id, lock: true) }
      end
    end
  end
end
