# frozen_string_literal: true

module Roost
  module Operations
    # Lets one student go on with an assignment: longer than the others, once more, or with more of their own time.
    class AllowMore
      PAST = "That time is over already. Choose a later one."
      MOST = 20
      SECONDS = (60..7200)

      # @param whom [Hash] :seat_id, or :student_id of the class who has not opened it yet
      # @param form [Hash{String=>String}] "way": "until" with "closes_at" as SchoolTime reads it, "attempt", or "time"
      #   with "seconds"
      # @return [Core::Reading, nil] nil when she has no such assignment, or nobody of it is meant
      def call(account_id, session_id, whom, form)
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          next nil unless row&.self_paced

          seat_id = seat(row, **whom)
          next nil unless seat_id

          give(row, seat_id, form).map do |given|
            Live::Bus.announce(row.id, :state)
            given
          end
        end
      end

      private

      def give(row, seat_id, form)
        case form["way"]
        when "until" then longer(row, seat_id, form)
        when "attempt" then once_more(row, seat_id)
        when "time" then more_time(row, seat_id, form)
        else Core::Reading.refused("Choose what to allow.")
        end
      end

      def seat(row, seat_id: nil, student_id: nil)
        seats = Store::Seats.new
        return (seat_id if seats.in?(row.id, seat_id)) if seat_id

        student = Store::Records.new.class_of(row).find { |each| each.id == student_id }
        return nil unless student && Store::Assignments.new.find(row.id).for?(student_id)

        seats.of_student(student_id, [row.id])[row.id] || seated(row, student)
      end

      # Whoever has not come yet sits down by this, and finds it by their pass.
      def seated(row, student)
        taken = ->(beginning) { Store::Seats.new.names(row.id, beginning: beginning) }
        name = Core::SeatName.read(student.shown_name, taken: taken).value
        Store::Seats.new.create(row.id, name, student_id: student.id)&.first
      end

      def longer(row, seat_id, form)
        time = SchoolClock.here
        time.read(form["closes_at"]).and_then do |closes_at|
          next Core::Reading.refused(PAST) if closes_at <= row.now

          Store::Assignments.new.allow(seat_id, closes_at: closes_at)
          Store::Sittings.new.reopen(seat_id, closes_at)
          goes_on(row)
        end
      end

      def once_more(row, seat_id)
        assignments = Store::Assignments.new
        return Core::Reading.refused("#{MOST} more is the most.") if assignments.allowance(seat_id)[:attempts] >= MOST

        assignments.allow(seat_id, attempts: 1)
        Core::Reading.ok(row)
      end

      def more_time(row, seat_id, form)
        seconds = Integer(form["seconds"].to_s, 10, exception: false)
        return Core::Reading.refused("One minute to two hours can be added.") unless seconds && SECONDS.cover?(seconds)

        given = Store::Sittings.new.give_time(row.id, "", seconds, seat_id: seat_id)
        given.zero? ? Core::Reading.refused("There is no time limit on it.") : Core::Reading.ok(row)
      end

      # Also after its end.
      def goes_on(row)
        Store::Sessions.new.reopen(row) if row.ended_at
        Core::Reading.ok(row)
      end
    end
  end
end
