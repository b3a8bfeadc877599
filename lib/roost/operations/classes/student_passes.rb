# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Student passes: made when they are first wanted, and anew when one was lost.
    class StudentPasses
      # @return [Array<Array(Core::Student, String)>, nil] everybody in a class with the pass; nil unless she
      #   teaches it
      def of_class(account_id, class_id)
        students = Store::Students.new
        return nil unless Store::Classes.new.find(account_id, class_id)

        all = students.of_class(class_id)
        (all.map(&:id) - students.passes(all.map(&:id)).keys).each { |id| give(students, id) }
        passes = students.passes(all.map(&:id))
        all.map { |student| [student, passes.fetch(student.id)] }
      end

      # The pass there was is good no more.
      # @return [String, nil] the new one; nil unless she teaches a class that has the student
      def renew(account_id, class_id, student_id)
        students = Store::Students.new
        return nil unless Store::Classes.new.find(account_id, class_id) && students.find(class_id, student_id)

        Store::Exports.new.forget("class_passes", class_id) # it has the one that is good no more
        give(students, student_id)
      end

      private

      def give(students, id)
        loop do
          pass = Core::StudentPass.make(SecureRandom)
          return pass if students.give_pass(id, pass)
        end
      end
    end
  end
end
