# frozen_string_literal: true

require "argon2"
require "securerandom"
require "yaml"

module Roost
  module Operations
    # The demo data: one teacher at Heronsgate School, two lessons on the birds of the
    # Sallow Marsh, and one past session of 24 simulated students. The same every time;
    # what is there already is left alone.
    class LoadDemo
      EMAIL = "falk@heronsgate.example"
      PASSWORD = "sallow marsh at dusk"
      NAME = "Ms Falk"
      FOLDER = File.join(Settings::ROOT, "demo")
      STUDENTS = 24
      SEED = 2026
      # Students that come late see only what follows: place in class => first slide.
      LATE = { 6 => 3, 19 => 2 }.freeze

      # @return [Hash] :email and :password of the demo teacher
      def call
        accounts = Store::Accounts.new
        unless accounts.id_of(EMAIL)
          accounts.transaction do
            account_id = accounts.create(email: EMAIL, name: NAME, password_hash: Argon2::Password.new.create(PASSWORD))
            lessons = %w[beaks-and-supper birds-on-the-move].map { |name| load_lesson(account_id, name) }
            past_session(account_id, lessons.last)
          end
        end
        { email: EMAIL, password: PASSWORD }
      end

      private

      def load_lesson(account_id, name)
        source = YAML.safe_load_file(File.join(FOLDER, "lessons/#{name}.yml"))
        slides = source["slides"].each_with_index.map { |slide, place| slide(account_id, slide, place + 1) }
        Store::Lessons.new.create(account_id, Core::Lesson.new(title: source["title"], slides: slides))
      end

      def slide(account_id, source, number)
        kind = source.dig("prompt", "kind")
        prompt = kind && Core::Prompts.kind(kind).new(id: "p#{number}", settings: source["prompt"].except("kind"))
        Core::Slide.new(id: "s#{number}", heading: source["heading"], text: source["text"].strip,
                        notes: source["notes"].to_s, picture: picture(account_id, source["picture"]), prompt: prompt)
      end

      def picture(account_id, source)
        return nil unless source

        File.open(File.join(FOLDER, "pictures", source["file"]), "rb") do |file|
          kept = KeepPicture.new.call(account_id, file, source["file"])
          raise ArgumentError, kept.reason unless kept.ok?

          Core::Picture.new(**kept.value.to_h, alt: source["alt"]).freeze
        end
      end

      # Runs the lesson through with simulated students, then puts it back to a lesson of 47 minutes the day before.
      def past_session(account_id, lesson_id)
        record = StartSession.new.call(account_id, lesson_id, demo_options).value
        students = Core::Practice::Roster.students(STUDENTS, seed: SEED)
        seats = students.map { |student| Store::Seats.new.create(record.id, student.name, practice: true).first }
        command(record, "begin", account_id)
        lesson = Store::Sessions.new.lesson(record.id)
        lesson.slides.each_with_index do |slide, place|
          command(record, "next", account_id) if place.positive?
          answer(record, slide, students, seats, place) if slide.prompt
        end
        command(record, "end", account_id)
        Store::Sessions.new.backdate(record.id, by: 24 * 3600, lasting: 47 * 60)
      end

      def demo_options
        { "title" => "Birds on the move", "class_name" => "Year 7 Kestrel", "opens_itself" => "1", "may_change" => "1",
          "code_throughout" => "1", "names_shown" => "1", "speed_share" => "0.25" }
      end

      def command(record, name, account_id)
        CommandSession.new.call(record.id, name, {}, account_id: account_id)
      end

      def answer(record, slide, students, seats, place)
        answers = Store::Answers.new
        present = students.each_index.reject { |number| LATE.fetch(number, 0) > place }
        answers.delivered(record.id, slide.id, present.map { |number| seats[number] })
        present.each do |number|
          plan = Core::Practice::Plan.of(students[number], number, slide.prompt, seed: SEED)
          next if plan.skips

          answers.save(session_id: record.id, seat_id: seats[number], slide_id: slide.id, value: plan.value,
                       final: (number + place) % 9 != 0, keyed: slide.prompt.keyed?, save_no: 1, save_id: SecureRandom.uuid)
          answers.backdate_delivery(seats[number], slide.id, plan.seconds)
        end
      end
    end
  end
end
