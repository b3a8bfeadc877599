# frozen_string_literal: true

require "securerandom"

module Roost
  module Setup
    # What a class has to do alone in the demo data: some have handed it in, some are at work, some have not opened it.
    class DemoAssignment
      DAY = 86_400
      DONE = 11
      AT_WORK = 17
      RULES = { "entry" => "pass", "going_back" => "1", "feedback" => "end", "attempts" => "2" }.freeze

      # @param lesson_id [Integer] of a lesson with a quiz, whose slides are given
      # @param class_id [Integer]
      def initialize(account_id, lesson_id:, class_id:)
        @account_id = account_id
        @lesson_id = lesson_id
        @class_id = class_id
      end

      def call
        Operations::StudentPasses.new.of_class(@account_id, @class_id)
        row = assigned
        people = Store::Students.new.of_class(@class_id).first(AT_WORK)
        people.each_with_index { |person, number| work(row, person, number) }
      end

      private

      def assigned
        lesson = Store::Lessons.new.find(@account_id, @lesson_id).lesson
        time = Operations::SchoolClock.here
        now = Store::Sessions.new.now
        times = { "opens_at" => time.field(now - (2 * DAY)), "closes_at" => time.field(now + (4 * DAY)) }
        form = { "class_id" => @class_id.to_s, "title" => "At home: #{lesson.quizzes.first.name}",
                 "sections" => [lesson.quizzes.first.id] }
        Operations::AssignLesson.new.call(@account_id, @lesson_id, { **RULES, **times, **form }).value
      end

      def work(row, person, number)
        seat_id, = Store::Seats.new.create(row.id, person.shown_name, student_id: person.id)
        device = { id: seat_id, session_id: row.id }
        taken = Operations::TakeSitting.new.call(device, row, begins: true)
        student = Core::Practice::Student.new(name: person.name, random: Random.new(number + 400))
        slides = taken.task.slides
        slides = slides.first(1 + (number % (slides.length - 1))) if number >= DONE
        slides.each_with_index { |slide, place| answer(row, device, student, number, slide, place) }
        Operations::HandInSitting.new.call(device, Operations::TakeSitting.new.call(device, row)) if number < DONE
      end

      def answer(row, device, student, number, slide, place)
        Operations::TakeSitting.new.call(device, row, to: place + 1)
        plan = Core::Practice::Plan.of(student, number, slide.prompt, seed: 400)
        return if plan.skips

        Store::Answers.new.save(session_id: row.id, seat_id: device[:id], slide_id: slide.id, value: plan.value, save_no: 1,
                                final: false, keyed: slide.prompt.keyed?, save_id: SecureRandom.uuid)
      end
    end
  end
end
