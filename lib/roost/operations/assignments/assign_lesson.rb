# frozen_string_literal: true

module Roost
  module Operations
    # Gives a lesson, or sections of it, to be gone through alone: a session with an opening and a closing time. The
    # lesson is frozen, as it is for any session.
    class AssignLesson
      NOTHING = "Nothing of it is asked or shown. Choose other sections."

      # @param form [Hash] as StartSession, and Core::Session::Assignment.read
      # @return [Core::Reading, nil] of a Store::Sessions::Row; nil without such a lesson
      def call(account_id, lesson_id, form)
        lesson = Store::Lessons.new.look(account_id, lesson_id)&.lesson
        return nil unless lesson

        read(form, lesson).and_then do |assignment|
          next Core::Reading.refused(NOTHING) if assignment.slides(lesson).empty?

          Store::Sessions.new.transaction do
            options = form.merge("names_shown" => "1", "may_change" => "1", "own_copy" => "1", "speed_share" => "0")
            StartSession.new.call(account_id, lesson_id, options, state: state(lesson, assignment))&.map do |row|
              Store::Assignments.new.create(row.id, assignment)
              row
            end
          end
        end
      end

      # Of a session that each goes through alone: all its questions are asked from the opening to the closing, so that they
      # are looked back on as any other.
      # @param asked [Array<Core::Slide>]
      # @return [Core::Session::State]
      def self.state(asked, opens_at, closes_at)
        opening = Core::Session::Opening.new(attempt: 1, opened_at: opens_at, deadline: closes_at).freeze
        openings = asked.to_h { |slide| [slide.id, [opening].freeze] }
        Core::Session::State.start.with(phase: "live", facts: Core::Session::Facts.of(openings: openings))
      end

      private

      def read(form, lesson)
        now = Store::Sessions.new.now
        time = SchoolClock.here
        Core::Session::Assignment.read(form, lesson: lesson, time: time, now: now)
      end

      def state(lesson, assignment)
        AssignLesson.state(assignment.slides(lesson).select(&:prompt), assignment.opens_at, assignment.closes_at)
      end
    end
  end
end
