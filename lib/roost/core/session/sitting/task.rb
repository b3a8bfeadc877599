# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What a student may go through at their own speed just now: a quiz the class is at, or an assignment. Times are
      # epoch seconds.
      #
      # section_id:: of the quiz; "" of an assignment; slides:: [Slide]; rules:: of Sitting::RULES
      # opens_at, ends_at:: for this student; nil where that is not said; open:: whether it can be begun
      # withdrawn:: whether an assignment was taken back
      # begins_itself:: a quiz begins with its page, an assignment when the student says so
      Task = Struct.new(:section_id, :title, :slides, :rules, :opens_at, :ends_at, :open, :withdrawn, :begins_itself,
                        keyword_init: true) do
        # @param state [State]
        # @return [Task, nil] nil unless the class is at a quiz that was opened
        def self.of_quiz(lesson, state)
          quiz = lesson.quiz(state.slide_id)
          opening = state.opening
          return nil unless quiz && opening

          new(section_id: quiz.id, title: quiz.name, slides: lesson.slides_of(quiz), rules: quiz.quiz_rules,
              opens_at: opening.opened_at, ends_at: opening.ends_at, open: state.open?, begins_itself: true).freeze
        end

        # @param assignment [Assignment]
        # @param student_id [Integer, nil] whose it is
        # @param allowance [Hash] :closes_at (nil as for all) and :attempts more, for this student
        # @return [Task]
        def self.of_assignment(lesson, assignment, title:, now:, allowance:, student_id: nil)
          ends_at = [assignment.closes_at, allowance[:closes_at]].compact.max
          attempts = assignment.rules["attempts"]
          rules = assignment.rules.merge("attempts" => attempts && (attempts + allowance[:attempts]))
          slides = assignment.slides(lesson, student_id)
          open = !assignment.unassigned && slides.any? && now.between?(assignment.opens_at, ends_at)
          new(section_id: "", title: title, slides: slides, rules: rules.freeze, open: open,
              opens_at: assignment.opens_at, ends_at: ends_at, withdrawn: assignment.unassigned, begins_itself: false).freeze
        end

        # How many questions a student gets, where each gets some of them.
        def to_answer = [rules["draw"], asked.length].compact.min

        # Whether each gets only some of the questions.
        def drawn? = to_answer < asked.length

        # @return [Array<String>] ids of the slides that ask something
        def asked = slides.select(&:prompt).map(&:id)

        # @param attempt [Integer, nil] the latest; nil before the first
        def another?(attempt) = open && (rules["attempts"].nil? || attempt.to_i < rules["attempts"])
      end
    end
  end
end
