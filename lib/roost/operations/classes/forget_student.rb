# frozen_string_literal: true

module Roost
  module Operations
    # Takes a student out of all past sessions of a teacher: what they gave stays, without a name, and so do the figures of the
    # class; files that were made for her go. It can't be taken back.
    class ForgetStudent
      RUNNING = "%s is in a session that is running. End it first."

      # @return [Core::Reading, nil] of how many sessions; nil unless the class is hers and the student in it
      def call(account_id, class_id, student_id)
        klass = Store::Classes.new.find(account_id, class_id)
        student = klass&.mine && Store::Students.new.find(class_id, student_id)
        return nil unless student

        seats = Store::Seats.new
        seats.transaction do
          rows = Store::PastSessions.new.of_student(account_id, student_id, StudentRecord::MOST)
          next Core::Reading.refused(format(RUNNING, student.name)) if rows.any? { |row, _| row.ended_at.nil? }

          seats.forget(rows.map(&:last))
          rows.each { |pair| Store::Evidence.new.changed(pair.first.id) }
          forget_files(account_id, student_id)
          Store::LookedAt.new.note(account_id, [student_id], :removed, said: "#{rows.length} sessions")
          Core::Reading.ok(rows.length)
        end
      end

      private

      # In which the name stands.
      def forget_files(account_id, student_id)
        exports = Store::Exports.new
        exports.forget_of(account_id)
        %w[student_json student_pdf].each { |kind| exports.forget(kind, student_id) }
      end
    end
  end
end
