# frozen_string_literal: true

module Roost
  module Operations
    # Lets a student into a session by pass; on another device, to the same seat.
    class EnterByPass
      UNKNOWN = "That pass isn't known here. Look at your card, or ask your teacher for a new one."
      NOT_THEIRS = "That lesson isn't for your class, or it has ended."

      # @return [Core::Reading] of a Core::Student
      def self.student(raw_pass)
        pass = Core::StudentPass.read(raw_pass)
        student = pass && Store::Students.new.by_pass(pass)
        student ? Core::Reading.ok(student) : Core::Reading.refused(UNKNOWN)
      end

      # @param session_id [Integer, nil] of a session that runs for a class of theirs
      # @return [Core::Reading] of the seat's token
      def call(raw_pass, session_id)
        EnterByPass.student(raw_pass).and_then do |student|
          row = (running(student) + assigned(student).map(&:first)).find { |each| each.id == session_id }
          next Core::Reading.refused(NOT_THEIRS) unless row

          seat = Store::Seats.new.of(row.id).find { |each| each.student_id == student.id }
          seat ? Core::Reading.ok(back(row, seat)) : JoinSession.new.with_pass(row.code, student)
        end
      end

      # @param student [Core::Student]
      # @return [Array<Store::Sessions::Row>] that run for a class of theirs
      def running(student)
        sessions = Store::Sessions.new
        Store::Students.new.classes_of(student.id).flat_map { |id, _name| sessions.running_for(id) }.map { |id| sessions.find(id) }
      end

      # @param student [Core::Student]
      # @return [Array<Array(Store::Sessions::Row, Core::Session::Assignment)>] what the classes of theirs were given to do
      #   alone, but for what was taken back, the one that closes first in front
      def assigned(student)
        classes = Store::Students.new.classes_of(student.id)
        rows = classes.flat_map { |id, _name| Store::Sessions.new.assigned_to(id) }
        assignments = Store::Assignments.new.of(rows.map(&:id))
        given = rows.map { |row| [row, assignments.fetch(row.id)] }
        theirs = given.select { |_, assignment| !assignment.unassigned && assignment.for?(student.id) }
        theirs.sort_by { |_, assignment| assignment.closes_at }
      end

      private

      def back(row, seat)
        token = Store::Seats.new.move(seat.id)
        Live::Bus.announce(row.id, :seats)
        token
      end
    end
  end
end
