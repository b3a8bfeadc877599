# frozen_string_literal: true

require "argon2"
require "yaml"

module Roost
  module Setup
    # The demo data: a teacher at Heronsgate School with lessons on the birds of the Sallow
    # Marsh, a shelf of short ones, two colleagues, a question bank, standards, a term of
    # past sessions, and an assignment that is open. The same every time; what is there is left alone.
    class Demo
      EMAIL = "falk@heronsgate.example"
      PASSWORD = "sallow marsh at dusk"
      NAME = "Ms Falk"
      FOLDER = File.join(Settings::ROOT, "demo")
      # A colleague, who shares one lesson and has opened another to all.
      OTHER = { email: "tamm@heronsgate.example", name: "Ms Tamm" }.freeze
      COLLEAGUE = { email: "rowe@heronsgate.example", name: "Mr Rowe" }.freeze
      SCHOOL = { "name" => "Heronsgate School", "time_zone" => "Europe/London", "top_grade" => "100", "grade_step" => "1",
                 "joining" => "domains", "domains" => "heronsgate.example" }.freeze
      LESSONS = %w[beaks-and-supper voices-of-the-marsh birds-on-the-move].freeze

      # @param sessions [Integer, nil] only so many of the term, the latest
      # @return [Hash] :email and :password of the demo teacher
      def call(sessions: nil)
        accounts = Store::Accounts.new
        accounts.transaction { load(accounts, sessions) } unless accounts.id_of(EMAIL)
        { email: EMAIL, password: PASSWORD }
      end

      private

      def load(accounts, sessions)
        hash = Argon2::Password.new.create(PASSWORD)
        account_id = accounts.create(email: EMAIL, name: NAME, password_hash: hash)
        colleague = accounts.create(**COLLEAGUE, password_hash: hash)
        accounts.create(**OTHER, password_hash: hash)
        Store::School.new.change(Core::SchoolSettings.read(SCHOOL).value)
        Operations::Today::WAYS.each { |way| accounts.note_begun(account_id, way) } # she has taught for a term
        load_shelf(account_id, colleague)
        load_standards(account_id)
        classes = load_classes(account_id)
        ready = Operations::ReadyLesson.new(take: method(:taken))
        lessons = LESSONS.to_h { |name| [name, ready.call(account_id, name)] }
        Store::Bank.new.keep(account_id, Store::Lessons.new.find(account_id, lessons["voices-of-the-marsh"]).lesson.prompts,
                             taken_from: "Voices of the marsh")
        DemoTerm.new(account_id, lessons: lessons, classes: classes).call(most: sessions)
        DemoGrades.new(account_id, class_id: classes["Year 7 Kestrel"]).call
        DemoAssignment.new(account_id, lesson_id: lessons["voices-of-the-marsh"], class_id: classes["Year 7 Kestrel"]).call
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

      # @return [Hash{String=>Integer}] names to ids
      def load_classes(account_id)
        YAML.safe_load_file(File.join(FOLDER, "classes.yml")).to_h do |source|
          id = Operations::KeepClass.new.create(account_id, source).value
          rows = source["students"].each_with_index.map do |name, place|
            [place + 1, { name: name, group: source["groups"][place % source["groups"].length],
                          time_factor: source["extra_time"].fetch(name, "1") }]
          end
          Operations::FillClass.new.fill(account_id, id, Core::ClassList.read(rows).value)
          [source["name"], id]
        end
      end

      # Each drawing is taken once: that takes a third of a second.
      def taken(account_id, name) = (@taken ||= {})[name] ||= Operations::TakeDrawing.new.call(account_id, name)
    end
  end
end
