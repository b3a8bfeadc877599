# frozen_string_literal: true

module Roost
  module Operations
    # A student goes through a quiz or an assignment at their own speed: begins, goes on where they were, or moves to
    # another of its slides.
    class TakeSitting
      TRIES = 5

      # kept:: Store::Sittings::Kept, nil of a task that was not begun; task:: Core::Session::Task; lesson:: Core::Lesson
      # answers:: Hash of slide id to Core::Session::Answer; seed:: what their order of parts comes from
      # rules:: Core::Session::Rules of the session
      Taken = Struct.new(:kept, :task, :lesson, :answers, :seed, :rules, keyword_init: true) do
        def sitting = kept&.sitting
      end

      # @param row [Store::Sessions::Row]
      # @param seat_id [Integer]
      # @return [Core::Session::Task, nil]
      def self.task(row, seat_id, lesson: Store::Sessions.new.lesson_of(row))
        return Core::Session::Task.of_quiz(lesson, row.state) unless row.self_paced

        assignment, allowance, student_id = Store::Assignments.new.at_seat(row.id, seat_id)
        Core::Session::Task.of_assignment(lesson, assignment, title: row.title, now: row.now, student_id: student_id,
                                                              allowance: allowance)
      end

      # @param seat [Hash] :id and :session_id
      # @param row [Store::Sessions::Row] of its session
      # @param to [Integer, nil] place of the slide to go to, from 1; nil: where they are
      # @param begins [Boolean] whether the student says that they begin, or begin again
      # @return [Taken, nil] nil when there is nothing to go through, or its time was over before this seat had begun
      def call(seat, row, to: nil, begins: false)
        lesson = Store::Sessions.new.lesson_of(row)
        task = TakeSitting.task(row, seat[:id], lesson: lesson)
        return nil unless task

        kept = standing(seat, task)
        kept = begun(seat, row, task, kept) || kept if begins?(task, kept, row, begins)
        return (Taken.new(task: task, lesson: lesson, answers: {}).freeze if task.open || row.self_paced) unless kept

        answers = answers(seat, row, kept)
        unless kept.sitting.over?(row.now)
          kept = moved(kept, to, TakeSitting.answered(lesson, kept.sitting, answers), quiz: !row.self_paced)
        end
        taken(seat, row, kept, task, lesson, answers)
      end

      # A slide as it will be when the student is there, for the device to have it when the line is away. Nothing is noted.
      # @param place [Integer] from 1
      # @return [Taken, nil] nil where they are not at work, or may not go to all slides as they like
      def ahead(seat, row, place)
        now = look(seat, row)
        sitting = now&.sitting
        return nil unless sitting&.free? && !sitting.over?(row.now) && place.between?(1, sitting.slides.length)

        there = Store::Sittings::Kept.new(**now.kept.to_h, sitting: sitting.at(place, answered: [])).freeze
        Taken.new(**now.to_h, kept: there).freeze
      end

      # Where they are, without anything being noted.
      # @return [Taken, nil] nil where they have not begun
      def look(seat, row)
        lesson = Store::Sessions.new.lesson_of(row)
        task = TakeSitting.task(row, seat[:id], lesson: lesson)
        kept = task && standing(seat, task)
        kept && taken(seat, row, kept, task, lesson, answers(seat, row, kept))
      end

      # @return [Array<String>] ids of the slides of a sitting that want nothing more: answered, or asking nothing
      def self.answered(lesson, sitting, answers)
        sitting.slides.select do |id|
          prompt = lesson.slide(id)&.prompt
          prompt.nil? || (answers[id]&.readable? && !prompt.blank_answer?(answers[id].value))
        end
      end

      def self.seed(seat, attempt) = "#{Roost.settings.session_secret} #{seat[:session_id]} #{seat[:id]} #{attempt}"

      private

      def taken(seat, row, kept, task, lesson, answers)
        Taken.new(kept: kept, task: task, lesson: lesson, answers: answers, rules: row.options.rules,
                  seed: TakeSitting.seed(seat, kept.sitting.attempt)).freeze
      end

      def standing(seat, task) = Store::Sittings.new.of_seat(seat[:id], task.section_id).last

      def begins?(task, kept, row, said)
        return task.begins_itself || said unless kept

        said && kept.sitting.over?(row.now) && task.another?(kept.sitting.attempt)
      end

      # Two windows that begin at once begin the same.
      # @return [Store::Sittings::Kept, nil]
      def begun(seat, row, task, before)
        attempt = before ? before.sitting.attempt + 1 : 1
        return nil unless task.open

        sitting = Core::Session::Sitting.begin(task.slides.map(&:id), asked: task.asked, rules: task.rules, now: row.now,
                                                                      attempt: attempt, window: [task.opens_at, task.ends_at],
                                                                      time_factor: Store::Seats.new.time_factor(seat[:id]),
                                                                      seed: TakeSitting.seed(seat, attempt))
        return nil unless sitting.ok?

        Store::Sittings.new.create(row.id, seat[:id], task.section_id, sitting.value)
        standing(seat, task)
      end

      def answers(seat, row, kept)
        found = Store::Answers.new.of(row.id, seat_id: seat[:id]).map(&:last)
        found.select { |answer| answer.attempt == kept.sitting.attempt }.to_h { |answer| [answer.slide_id, answer] }
      end

      # The student has that slide before them from now on. What another window did meanwhile goes first.
      def moved(kept, to, answered, quiz:)
        TRIES.times do
          return kept if kept.sitting.handed_in_at

          moved = Store::Sittings.new.move(kept, kept.sitting.at(to || kept.sitting.place, answered: answered))
          if moved
            Live::Bus.announce(kept.session_id, :answers) if quiz
            return moved
          end
          kept = Store::Sittings.new.find(kept.id)
        end
        kept
      end
    end
  end
end
