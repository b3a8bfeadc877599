# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Gives those of a class who don't have a standard or subtopic yet the questions about it again: a quiz of the teacher's own,
    # assigned to exactly them, by their passes, from now on for a week.
    class PractiseStandard
      MOST = 12 # questions, those that went worst first
      NOBODY = "Everybody of whom enough was seen has this. There is nobody to assign it to."
      NOTHING = "There is no question about this any more that could be asked again."

      # @param name [String] of the standard or subtopic
      # @param line [Rational] from which share on somebody has it
      # @param once [String, nil] UUID of the form
      # @return [Core::Reading, nil] of the Store::Sessions::Row of the assignment; nil unless she teaches the class
      def call(account_id, class_id, name, line:, period:, once: nil)
        klass = Store::Classes.new.find(account_id, class_id)
        return nil unless klass

        overview = WhoHasIt.new.call(account_id, class_id, line: line, period: period)
        without = overview.without(name)
        return Core::Reading.refused(NOBODY) if without.empty?

        slides = questions(overview, name)
        slides.empty? ? Core::Reading.refused(NOTHING) : give(account_id, klass, name, slides, without, once)
      end

      private

      # Each question as it was asked the last time, by how the class did.
      def questions(overview, name)
        earned = overview.students.filter_map { |student| overview.cell(student, name) }.flat_map(&:earned)
        by_slide = earned.group_by { |each| [each.session_id, each.slide_id] }
        ranked = by_slide.sort_by { |_, all| all.sum(&:mark) / all.length }.map(&:first)
        slides = ranked.filter_map { |session_id, slide_id| Store::Sessions.new.lesson(session_id).slide(slide_id) }
        slides.select(&:prompt).uniq { |slide| slide.prompt.origin }.first(MOST)
      end

      def give(account_id, klass, name, slides, students, once)
        sessions = Store::Sessions.new
        sessions.transaction do
          made = sessions.asked_once(account_id, once)
          next Core::Reading.ok(made) if made

          lesson = lesson(name, slides)
          lesson_id = CreateLesson.new.call(account_id, lesson)
          opens_at, closes_at = SchoolClock.here.week_from(sessions.now)
          row = sessions.create(account_id: account_id, lesson_id: lesson_id, lesson: lesson, title: lesson.title,
                                class_id: klass.id, class_name: klass.name, options: options, once: once,
                                state: AssignLesson.state(lesson.prompts, opens_at, closes_at))
          Store::Assignments.new.create(row.id, assignment(lesson, students, opens_at, closes_at))
          Core::Reading.ok(sessions.find(row.id))
        end
      end

      def lesson(name, slides)
        copies = slides.map { |slide| slide.copy("s#{SecureRandom.hex(6)}") }
        title = "Practise: #{name}"[0, Core::Lesson::TITLE_LIMIT]
        Core::Lesson.new(title: title, slides: copies).sectioned(copies.map(&:id), "practice", "quiz")
      end

      def options
        Core::Session::Options.read({ "entry" => "pass", "names_shown" => "1", "may_change" => "1", "own_copy" => "1",
                                      "speed_share" => "0" })
      end

      def assignment(lesson, students, opens_at, closes_at)
        rules = Core::Session::Sitting::RULES.merge("feedback" => "explained")
        pieces = students.to_h { |student| [student.id.to_s, lesson.slides.map(&:id)] }
        Core::Session::Assignment.new(sections: [], opens_at: opens_at, closes_at: closes_at, rules: rules, pieces: pieces)
      end
    end
  end
end
