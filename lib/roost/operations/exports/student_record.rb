# frozen_string_literal: true

module Roost
  module Operations
    # Who may have all that is kept about a student (StudentDocument) as a file: the keeper all of it, another teacher what
    # happened with her.
    class StudentRecord
      MOST = 1_000 # sessions, the latest

      # account_id:: who asks; student:: Core::Student; keeper:: whether all teachers' sessions are in it
      Subject = Struct.new(:account_id, :student, :classes, :keeper, keyword_init: true)

      # @return [Subject, nil] nil unless she teaches a class that the student is in, or keeps the school
      def subject(account_id, student_id)
        students = Store::Students.new
        classes = students.classes_of(student_id)
        keeper = Store::School.new.keeper?(account_id)
        known = classes.find { |id, _| keeper || Store::Classes.new.find(account_id, id) }
        student = known && students.find(known.first, student_id)
        student && Subject.new(account_id: account_id, student: student, classes: classes.map(&:last), keeper: keeper).freeze
      end
    end
  end
end
