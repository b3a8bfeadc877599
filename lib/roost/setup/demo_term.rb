# frozen_string_literal: true

require "securerandom"
require "yaml"

module Roost
  module Setup
    # The sessions that are looked back on in the demo data: a term of them, with the students of the demo classes, who
    # answer as those of a practice class do. The same every time.
    class DemoTerm
      SOURCE = File.join(Settings::ROOT, "demo/term.yml")
      LASTING = 47 * 60 # seconds
      OPTIONS = { "opens_itself" => "1", "may_change" => "1", "code_throughout" => "1", "names_shown" => "1",
                  "own_copy" => "1", "one_touch" => "1", "speed_share" => "0.25" }.freeze
      # Slides that go by while somebody is late.
      MISSED = 3

      # @param lessons [Hash{String=>Integer}] names of demo lessons to ids
      # @param classes [Hash{String=>Integer}] names to ids
      def initialize(account_id, lessons:, classes:)
        @account_id = account_id
        @lessons = lessons
        @classes = classes
      end

      # @param most [Integer, nil] only so many, the latest
      def call(most: nil)
        sources = YAML.safe_load_file(SOURCE)
        sources.last(most || sources.length).each { |source| take_place(source) }
      end

      private

      attr_reader :account_id

      def take_place(source)
        class_id = @classes.fetch(source["class"])
        form = OPTIONS.merge("class_id" => class_id.to_s)
        row = Operations::StartSession.new.call(account_id, @lessons.fetch(source["lesson"]), form).value
        seats = seats(row, class_id, source)
        command(row, "begin")
        lesson = Store::Sessions.new.lesson_of(row)
        lesson.stops.reject { |each| lesson.section_of(each.id)&.quiz? }.each_with_index do |stop, place|
          command(row, "next") unless Store::Sessions.new.find(row.id).state.slide_id == stop.id
          quiz = lesson.quiz(stop.id)
          quiz ? work(row, lesson.slides_of(quiz), place, seats, source) : answer(row, stop, place, seats, source)
          rounds(row, lesson, stop, seats, source)
        end
        command(row, "end")
        date(row, lesson, seats, source)
        DemoMarks.new(row, source, colleague: Demo::COLLEAGUE[:email]).call
      end

      # Puts it back to when it was.
      def date(row, lesson, seats, source)
        Store::Openings.new.tell_all(row.id)
        Store::SessionTimes.new.put_back(row.id, by: source["days"] * 24 * 3600, lasting: LASTING, slots: slots(lesson, source))
        seats.each { |student, _number, seat_id| came_late(seat_id, source["late"][student.name]) }
      end

      # How long each slide was up: questions longer than others, none as long as the next.
      # @return [Hash{String=>Array(Float, Float)}] as shares of the lesson
      def slots(lesson, source)
        chance = Random.new(source["seed"])
        weights = lesson.stops.map { |stop| (stop.prompt || lesson.quiz(stop.id) ? 3 : 2) * (0.6 + chance.rand) }
        ends = weights.each_with_object([0.0]) { |weight, all| all << (all.last + (weight / weights.sum)) }
        lesson.stops.map(&:id).zip(ends.each_cons(2)).to_h
      end

      # @return [Array<Array(Core::Practice::Student, Integer, Integer)>] with the number in the class and the seat
      def seats(row, class_id, source)
        people = Store::Students.new.of_class(class_id)
        people.each_with_index.reject { |person, _| source["absent"].include?(person.name) }.map do |person, number|
          keypad = source["keypads"] ? format("%03d", number + 1) : nil
          seat_id, = Store::Seats.new.create(row.id, person.shown_name, student_id: person.id, keypad: keypad)
          [Core::Practice::Student.new(name: person.name, random: Random.new(number + source["class"].sum)), number, seat_id]
        end
      end

      # @param minutes [Integer, nil]
      def came_late(seat_id, minutes) = minutes && Store::Seats.new.came_late(seat_id, minutes * 60)

      def command(row, name, **arguments)
        Operations::CommandSession.new.call(account_id, row.id, name, arguments.transform_keys(&:to_s))
      end

      # A game round is played in the first of its styles where it begins, and again in each of the others where it ends.
      def rounds(row, lesson, stop, seats, source)
        section = lesson.round_at(stop.id)
        first, *others = source["styles"]
        return unless section && first

        command(row, "play", section: section.id, style: first) if stop.id == section.id
        others.each_with_index { |style, at| again(row, section, style, at + 2, seats, source) } if stop.id == section.end_id
      end

      def again(row, section, style, attempt, seats, source)
        lesson = Store::Sessions.new.lesson_of(row)
        command(row, "play", section: section.id, style: style)
        lesson.slides_of(section).each do |slide|
          answer(row, slide, MISSED, seats, source.merge("seed" => source["seed"] + attempt), attempt: attempt)
          command(row, "next")
        end
      end

      # At their own speed; one in seven does not hand in.
      def work(row, slides, place, seats, source)
        present = Store::Sessions.new.find(row.id)
        devices = seats.map { |_student, _number, seat_id| { id: seat_id, session_id: row.id } }
        devices.each { |seat| Operations::TakeSitting.new.call(seat, present) }
        slides.each { |slide| answer(row, slide, place, seats, source) }
        devices.each_with_index do |seat, number|
          Operations::HandInSitting.new.call(seat, Operations::TakeSitting.new.call(seat, present)) unless number % 7 == 3
        end
      end

      def answer(row, slide, place, seats, source, attempt: 1)
        return unless slide.prompt && (!source["keypads"] || slide.prompt.keypad_takes)

        answers = Store::Answers.new
        deliveries = Store::Deliveries.new
        here = seats.reject { |student, _number, _seat| source["late"].key?(student.name) && place < MISSED }
        deliveries.note(row.id, slide.id, here.map(&:last), attempt: attempt)
        here.each do |student, number, seat_id|
          plan = Core::Practice::Plan.of(student, number, slide.prompt, seed: source["seed"])
          next if plan.skips

          answers.save(session_id: row.id, seat_id: seat_id, slide_id: slide.id, value: plan.value, save_no: 1, attempt: attempt,
                       final: (number + place) % 9 != 0, keyed: slide.prompt.keyed?, save_id: SecureRandom.uuid,
                       sure: (number % 3) + 1)
          deliveries.backdate(seat_id, slide.id, plan.seconds, attempt: attempt)
        end
      end
    end
  end
end
