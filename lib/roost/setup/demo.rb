# frozen_string_literal: true

require "argon2"
require "securerandom"
require "yaml"

module Roost
  module Setup
    # The demo data: a teacher at Heronsgate School with lessons on the birds of the Sallow
    # Marsh, a shelf of short ones, two colleagues, a question bank, standards, and one past
    # session of 24 simulated students. The same every time; what is there is left alone.
    class Demo
      EMAIL = "falk@heronsgate.example"
      PASSWORD = "sallow marsh at dusk"
      NAME = "Ms Falk"
      FOLDER = File.join(Settings::ROOT, "demo")
      STUDENTS = 24
      SEED = 2026
      # Students that come late see only what follows: place in class => first slide.
      LATE = { 6 => 3, 19 => 2 }.freeze

      # A colleague, who shares one lesson and has opened another to all.
      OTHER = { email: "tamm@heronsgate.example", name: "Ms Tamm" }.freeze
      COLLEAGUE = { email: "rowe@heronsgate.example", name: "Mr Rowe" }.freeze
      SCHOOL = { "name" => "Heronsgate School", "time_zone" => "Europe/London", "top_grade" => "100", "grade_step" => "1",
                 "languages" => ["en"], "joining" => "domains", "domains" => "heronsgate.example" }.freeze
      LESSONS = %w[beaks-and-supper voices-of-the-marsh birds-on-the-move].freeze

      # @return [Hash] :email and :password of the demo teacher
      def call
        accounts = Store::Accounts.new
        accounts.transaction { load(accounts) } unless accounts.id_of(EMAIL)
        { email: EMAIL, password: PASSWORD }
      end

      private

      def load(accounts)
        hash = Argon2::Password.new.create(PASSWORD)
        account_id = accounts.create(email: EMAIL, name: NAME, password_hash: hash)
        colleague = accounts.create(**COLLEAGUE, password_hash: hash)
        accounts.create(**OTHER, password_hash: hash)
        Store::School.new.change(Core::SchoolSettings.read(SCHOOL).value)
        load_shelf(account_id, colleague)
        load_standards(account_id)
        kestrel = load_classes(account_id)
        ready = Operations::ReadyLesson.new(take: method(:taken))
        lessons = LESSONS.map { |name| ready.call(account_id, name) }
        Store::Bank.new.keep(account_id, Store::Lessons.new.find(account_id, lessons[1]).lesson.prompts,
                             taken_from: "Voices of the marsh")
        past_session(account_id, lessons.last, kestrel)
      end

      # The last two of the shelf are the colleague's.
      def load_shelf(account_id, colleague)
        sources = YAML.safe_load_file(File.join(FOLDER, "lessons/shelf.yml"))
        ids = sources.each_with_index.map do |source, place|
          short_lesson(place < sources.length - 2 ? account_id : colleague, source)
        end
        sharing = Store::Sharing.new
        sharing.share(ids[-1], account_id, may_edit: true)
        sharing.open_to_all(ids[-2], true)
        [ids[0], ids[6]].each { |id| sharing.star(account_id, id, true) }
      end

      def short_lesson(account_id, source)
        first = Core::Slide.new(id: "s1", heading: source["title"], arrangement: "behind",
                                pictures: [taken(account_id, source["drawing"]).value])
        rest = source["starters"].each_with_index.map do |id, place|
          Operations::UseStarter.new(take: method(:taken)).call(account_id, Store::Starters.find(id), "s#{place + 2}").value
        end
        lesson = Core::Lesson.new(title: source["title"], slides: [first, *rest], details: Core::Details.from_document(source))
        Store::Lessons.new.create(account_id, lesson)
      end

      def load_standards(account_id)
        found = Exchange::StandardsSheet.read(File.join(FOLDER, "standards.csv")).value
        Store::Standards.new.keep(account_id, found.standards, for_all: true)
      end

      # @return [Integer] id of the first class
      def load_classes(account_id)
        YAML.safe_load_file(File.join(FOLDER, "classes.yml")).map do |source|
          id = Operations::KeepClass.new.create(account_id, source).value
          rows = source["students"].each_with_index.map do |name, place|
            [place + 1, { name: name, group: source["groups"][place % source["groups"].length],
                          time_factor: source["extra_time"].fetch(name, "1") }]
          end
          Operations::FillClass.new.fill(account_id, id, Core::Roll.read(rows).value)
          id
        end.first
      end

      # Each drawing is taken once: that takes a third of a second.
      def taken(account_id, name) = (@taken ||= {})[name] ||= Operations::TakeDrawing.new.call(account_id, name)

      # Runs the lesson through with simulated students, then puts it back to a lesson of 47 minutes the day before.
      def past_session(account_id, lesson_id, class_id)
        row = Operations::StartSession.new.call(account_id, lesson_id, demo_options.merge("class_id" => class_id.to_s)).value
        students = Core::Practice::Roster.students(STUDENTS, seed: SEED)
        people = Store::Students.new.of_class(class_id).to_h { |person| [person.name, person] }
        seats = students.map do |student|
          Store::Seats.new.create(row.id, student.name, practice: true, student_id: people.fetch(student.name).id).first
        end
        command(row, "begin", account_id)
        lesson = Store::Sessions.new.lesson_of(row)
        lesson.slides.each_with_index do |slide, place|
          command(row, "next", account_id) if place.positive?
          answer(row, slide, students, seats, place) if slide.prompt
        end
        command(row, "end", account_id)
        Store::Sessions.new.backdate(row.id, by: 24 * 3600, lasting: 47 * 60)
      end

      def demo_options
        { "title" => "Birds on the move", "opens_itself" => "1", "may_change" => "1",
          "code_throughout" => "1", "names_shown" => "1", "speed_share" => "0.25" }
      end

      def command(row, name, account_id)
        Operations::CommandSession.new.call(account_id, row.id, name)
      end

      def answer(row, slide, students, seats, place)
        answers = Store::Answers.new
        deliveries = Store::Deliveries.new
        present = students.each_index.reject { |number| LATE.fetch(number, 0) > place }
        deliveries.note(row.id, slide.id, present.map { |number| seats[number] })
        present.each do |number|
          plan = Core::Practice::Plan.of(students[number], number, slide.prompt, seed: SEED)
          next if plan.skips

          answers.save(session_id: row.id, seat_id: seats[number], slide_id: slide.id, value: plan.value,
                       final: (number + place) % 9 != 0, keyed: slide.prompt.keyed?, save_no: 1, save_id: SecureRandom.uuid)
          deliveries.backdate(seats[number], slide.id, plan.seconds)
        end
      end
    end
  end
end
