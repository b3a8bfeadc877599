# frozen_string_literal: true

module Roost
  module Operations
    # Changes what is kept of a student, takes somebody out of a class or back in, moves people on.
    class KeepStudent
      ELSEWHERE = "%s is in “%s”, too, which is a colleague's. Take them out of your class instead."
      SHOWN = "Somebody else in this class is shown as “%s”. Add a letter."

      # @param form [Hash] "given", "family", "shown_name", "number", "group", "time_factor", "notes"
      # @return [Core::Reading, nil] of the student's id; nil unless she teaches a class that has them
      def change(account_id, class_id, id, form)
        teaching(account_id, class_id) do |students|
          student = students.find(class_id, id)
          next nil unless student

          cells = form.slice("given", "family", "shown_name", "number", "group", "time_factor", "notes").transform_keys(&:to_sym)
          others = students.of_class(class_id).reject { |each| each.id == id }.map(&:shown_name)
          known = { given: student.given, family: student.family }
          Core::ClassList.fields(known.merge(cells)).and_then { |fields| shown(fields, others) }.map do |fields|
            students.regroup(class_id, id, fields.delete(:group)) if fields.key?(:group)
            students.change(id, fields)
            Store::Seats.new.give_time_factor(id, fields[:time_factor]) if fields[:time_factor]
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
      # @return [Core::Reading, nil] of the student's id; nil unless they are, or were, in a class of her own;
      #   refused while they are in somebody else's
      def delete(account_id, class_id, id, deleted: true)
        teaching(account_id, class_id) do |students|
          known = students.find(class_id, id) || students.deleted_lately(class_id).find { |student| student.id == id }
          next nil unless known && Store::Classes.new.find(account_id, class_id).mine

          other = students.classes_of(id).find { |klass, _name| !Store::Classes.new.find(account_id, klass)&.mine }
          next Core::Reading.refused(format(ELSEWHERE, known.name, other.last)) if other

          students.mark_deleted(id, deleted)
          Core::Reading.ok(id)
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
          next Core::Reading.refused("Choose who moves.") if going.empty?
          next Core::Reading.refused(format(FillClass::FULL, there.length)) if there.length > Core::ClassList::MOST

          students.enrol(to, going.to_h { |student| [student.id, nil] })
          students.leave(class_id, going.map(&:id)) unless stay
          Core::Reading.ok(going.length)
        end
      end

      private

      # @param others [Array<String>] what others in the class are shown as
      # @return [Core::Reading] of the fields, with a shown name that is nobody else's
      def shown(fields, others)
        return Core::Reading.ok(fields) unless fields.key?(:shown_name)
        if fields[:shown_name] == ""
          return Core::Reading.ok(fields.merge(shown_name: Core::StudentName.shown(fields[:name],
                                                                                   others)))
        end

        taken = others.any? { |other| other.casecmp?(fields[:shown_name]) }
        taken ? Core::Reading.refused(format(SHOWN, fields[:shown_name])) : Core::Reading.ok(fields)
      end

      # What is done to a class she teaches, all or nothing; sessions that run for it hear of it.
      def teaching(account_id, class_id)
        classes = Store::Classes.new
        classes.transaction do
          next nil unless classes.find(account_id, class_id, lock: true)

          yield(Store::Students.new).tap { TellRunning.of_class(class_id) }
        end
      end
    end
  end
end
