# frozen_string_literal: true

require "digest"

module Roost
  module Operations
    # The practice class: simulated students that sit in a live session and answer, so
    # that one person can try the whole thing alone. What each does is a function of the
    # session and the time, so it goes on in whichever process is alive.
    class PracticeClass
      STREAM = "practice"
      LOCK = 77_812
      NAME = 28 # characters

      # Seats up to `count` more students.
      # @return [Core::Reading, nil] of how many came; nil when she has no such session
      def invite(account_id, session_id, count)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row

        here = Store::Seats.new.of(row.id).count(&:practice)
        most = Core::Practice::Roster::MOST
        unless count&.between?(1, most - here)
          return Core::Reading.refused("A practice class has at most #{most} students; #{here} are here.")
        end

        students = Core::Practice::Roster.students(here + count, seed: row.id).last(count)
        tokens = names(row, students).map { |name| JoinSession.new.rehearse(row.code, name) }
        refused = tokens.find { |token| !token.ok? }
        return refused if refused

        carry_on(row.id)
        Core::Reading.ok(count)
      end

      # Lets the students of a session do what is due. Safe to call from every process.
      # @return [Boolean] whether something changed
      def carry_on(session_id)
        seats = Store::Seats.new
        seats.alone(LOCK, session_id) do
          pupils = seats.of(session_id).select(&:practice)
          next false if pupils.empty?

          seats.arrive(pupils.map(&:id), STREAM)
          row = Store::Sessions.new.find(session_id)
          next pupils.any? { |seat| !seat.here } unless row.state.open? && !row.state.eyes_up

          lesson = Store::Sessions.new.lesson_of(row)
          quiz = lesson.quiz(row.state.slide_id)
          quiz ? PracticeQuiz.new(row, lesson, quiz).carry_on(pupils) : answer_due(row, pupils, lesson)
        end
      end

      # Saves what a student of the practice class answers; again it is the same save.
      def self.save(row, seat, slide, value, attempt: 1)
        key = Digest::SHA256.hexdigest("#{seat.id}/#{slide.id}/#{attempt}")
        save_id = [key[0, 8], key[8, 4], key[12, 4], key[16, 4], key[20, 12]].join("-")
        Store::Answers.new.save(session_id: row.id, seat_id: seat.id, slide_id: slide.id, value: value, final: true,
                                attempt: attempt, keyed: slide.prompt.keyed?, save_no: 1, save_id: save_id)
      end

      private

      # They stand in for those of the class who are missing, as far as there are any, and say of themselves that they practise.
      # @param students [Array<Core::Practice::Student>]
      def names(row, students)
        missing = row.class_id ? Store::Records.new.of(row).missing.map(&:shown_name) : []
        students.each_with_index.map { |student, place| "#{(missing[place] || student.name)[0, NAME]} (practice)" }
      end

      # @return [Boolean] whether anybody answered
      def answer_due(row, pupils, lesson)
        slide = lesson.slide(row.state.slide_id)
        attempt = row.state.opening.attempt
        answers = Store::Answers.new
        deliveries = Store::Deliveries.new
        shown = deliveries.seats(row.id, slide.id, attempt)
        deliveries.note(row.id, slide.id, pupils.map(&:id) - shown, attempt: attempt)
        done = answers.seats(row.id, slide.id, attempt)
        due = plans(row, pupils, slide).reject { |seat, _| done.include?(seat.id) }
        due.each { |seat, plan| PracticeClass.save(row, seat, slide, plan.value, attempt: attempt) }
        due.any?
      end

      # What those do whose time has come.
      # @return [Hash{Core::Session::Seat=>Core::Practice::Plan}]
      def plans(row, pupils, slide)
        students = Core::Practice::Roster.students(pupils.length, seed: row.id)
        waited = row.now - row.state.opening.opened_at
        all = pupils.zip(students).each_with_index.to_h do |(seat, student), place|
          [seat, Core::Practice::Plan.of(student, place, slide.prompt, seed: row.id)]
        end
        all.reject { |_, plan| plan.skips || plan.seconds > waited }
      end
    end
  end
end
