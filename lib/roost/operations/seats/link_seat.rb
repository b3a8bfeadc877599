# frozen_string_literal: true

module Roost
  module Operations
    # Says whose seat it was: a child came in under another's name, or by a name of its own. What was given there is that
    # student's from now on, wherever somebody looks back.
    class LinkSeat < ChangeSeat
      NOBODY = "That student isn't in this class any more. Choose another."
      HERE = "That student has a seat of their own in this session. Link that one to somebody else first."

      # @param student_id [Integer, nil] of the class; nil: of nobody in it
      # @return [Core::Reading, nil] of the student's id or nil; nil when she has no such session or seat
      def call(account_id, session_id, seat_id, student_id)
        done = change(account_id, session_id, seat_id, "link") do |seats|
          next Core::Reading.refused(NOBODY) if student_id && !of_class?(session_id, student_id)
          next Core::Reading.refused(HERE) unless seats.link(seat_id, student_id)

          Live::Bus.announce(session_id, :people)
          Core::Reading.ok({ "student" => student_id })
        end
        done&.map { |recorded| recorded["student"] }
      end

      private

      def of_class?(session_id, student_id)
        Store::Records.new.class_of(Store::Sessions.new.find(session_id)).any? { |student| student.id == student_id }
      end
    end
  end
end
