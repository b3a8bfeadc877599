# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Commands
        # A quiz, which is open as a whole while students are at work in it at their own speed.
        module Quizzing
          NO_LIMIT = "This quiz has no time limit. Close it when you like, or say in how long it closes."

          # More "seconds" for all who are at work, or for one "seat".
          def more_time(arguments)
            seconds = whole(arguments, "seconds")
            return Reading.refused("Between 5 and 600 seconds can be added at a time.") unless ADDED_SECONDS.cover?(seconds)

            while_live do
              next Reading.refused("No quiz is running here.") unless quiz && state.open?
              next Reading.refused(NO_LIMIT) unless quiz.rules["limit"]

              whom = whole(arguments, "seat")&.to_s || State::EVERYBODY
              given = state.time_given.fetch(quiz.id, {})
              more = given.merge(whom => given.fetch(whom, 0) + seconds).freeze
              Reading.ok(state.with(time_given: state.time_given.merge(quiz.id => more).freeze))
            end
          end

          private

          # @return [Section, nil] the quiz the class is at
          def quiz = lesson.quiz(state.slide_id)

          def open_quiz(card)
            put(state, card, state.opening ? state.opening.reopened(now, nil) : Opening.begin(now, nil))
          end

          # Its questions were asked of everybody for as long as it was open, so that they are looked back on as any other.
          def with_questions_closed(closed)
            window = closed.opening
            asked = Opening.new(attempt: 1, opened_at: window.opened_at, closed_at: window.closed_at).freeze
            lesson.slides_of(quiz).select(&:prompt).reduce(closed) do |so_far, slide|
              before = so_far.opening(slide.id)
              before.nil? || before.opened_at == window.opened_at ? so_far.opened(slide.id, asked) : so_far
            end
          end
        end
      end
    end
  end
end
