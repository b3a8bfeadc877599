# frozen_string_literal: true

module Roost
  module Operations
    # Carries out a teacher's command on a session: locks the row, lets the core decide,
    # saves state and event, tells every web process; all or nothing.
    class CommandSession
      ALONE = "This is an assignment: each goes through it alone."
      # Commands that an assignment takes.
      WHERE_ALONE = %w[end put_aside count_again curate].freeze

      # @param account_id [Integer] of the teacher who gave it
      # @param arguments [Hash{String=>String}] as sent
      # @return [Core::Reading, nil] of the next Core::Session::State; nil when she has no such session
      def call(account_id, session_id, command, arguments = {})
        carry_out(command, arguments, account_id) { |sessions| sessions.of_teacher(account_id, session_id, lock: true) }
      end

      # What an operation commands that has looked already whether the teacher may.
      # @return [Core::Reading, nil] as #call
      def of_row(row, command, arguments = {})
        carry_out(command, arguments, row.account_id) { |sessions| sessions.find(row.id, lock: true) }
      end

      # What the clock commands: no account asks.
      # @return [Core::Reading, nil] as #call
      def by_clock(session_id, command)
        carry_out(command, {}, nil) { |sessions| sessions.find(session_id, lock: true) }
      end

      private

      def carry_out(command, arguments, account_id)
        sessions = Store::Sessions.new
        sessions.transaction do
          row = yield(sessions)
          next nil if row.nil? || row.deleted
          next Core::Reading.refused(ALONE) if row.self_paced && !WHERE_ALONE.include?(command)

          lesson = sessions.lesson_of(row)
          present = -> { Store::Seats.new.of(row.id).select(&:here).map(&:id) }
          following = Core::Session::Commands.call(lesson, row.options, row.state, command, arguments, row.now, present: present,
                                                   longest: -> { longest(row) }, steps: -> { steps(row) })
          following.map do |state|
            unless state == row.state
              sessions.advance(row, state, command: command, arguments: arguments, account_id: account_id, told: true)
              follow_all(row, lesson, state)
            end
            state
          end
        end
      end

      # @return [Rational] the largest time factor of those who are waited for
      def longest(row)
        slide_id = row.state.slide_id
        longer = Store::Seats.new.of(row.id).select { |seat| seat.here && seat.factor > 1 }
        return 1r if longer.empty?

        done = Store::Answers.new.handed_in(row.id, slide_id, row.state.opening.attempt)
        longer.reject { |seat| done.include?(seat.id) }.map(&:factor).max || 1r
      end

      # @return [Integer] of the end of the round that the class is at
      def steps(row) = Core::Session::Views::Rounds.steps(Store::Moments.new.of(row))

      def follow_all(row, lesson, state)
        lesson.quizzes.each { |quiz| follow(row, quiz.id, row.state, state) }
        Store::Background.new.later("write_evidence", row.id) if state.ended? && !row.state.ended?
      end

      # What became of a quiz goes for those who are at work in it.
      def follow(row, quiz_id, before, now)
        sittings = Store::Sittings.new
        window = now.opening(quiz_id)
        sittings.end_all(row.id, quiz_id, window.ends_at) unless window == before.opening(quiz_id)
        earlier = before.time_given.fetch(quiz_id, {})
        now.time_given.fetch(quiz_id, {}).each do |whom, seconds|
          more = seconds - earlier.fetch(whom, 0)
          sittings.give_time(row.id, quiz_id, more, seat_id: Integer(whom, exception: false)) unless more.zero?
        end
      end
    end
  end
end
