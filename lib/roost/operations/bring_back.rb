# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Questions a class should meet again, and a ready opener made of them.
    class BringBack
      MOST = 8
      # Live sessions of the class that are looked at, the latest.
      SESSIONS = 24
      NONE = "Choose at least one question."
      WAYS = { "paced" => "You go through them together", "quiz" => "A quiz, each at their own speed" }.freeze

      # @return [Array<Core::Analysis::BringBack::Need>] at most MOST, the greatest need first
      def needs(account_id, class_id)
        rows = Store::PastSessions.new.ended_of_class(account_id, class_id, SESSIONS)
        alone, live = rows.partition(&:alone)
        asked = asked_live(live) + alone.flat_map { |row| asked_alone(row) }
        Core::Analysis::BringBack.of(asked, now: Store::Sessions.new.now).first(MOST)
      end

      # Puts chosen ones before everything else in a lesson, or into a new one.
      # @param chosen [Array<String>] ids of their prompts
      # @param lesson_id [Integer, nil] nil for a new lesson
      # @param way [String] one of WAYS
      # @return [Core::Reading, nil] of the lesson's id; nil without such a lesson
      def call(account_id, class_id, chosen:, lesson_id:, way:, title:)
        slides = needs(account_id, class_id).map(&:slide).select { |slide| chosen.include?(slide.prompt.id) }
        return Core::Reading.refused(NONE) if slides.empty?

        copies = slides.map { |slide| slide.copy("s#{SecureRandom.hex(6)}") }
        lesson_id ? into(account_id, lesson_id, copies, way) : fresh(account_id, copies, way, title)
      end

      private

      # Live, nobody's own answers have to be looked at.
      def asked_live(rows)
        counts = Store::GivenCounts.new.of(rows.map(&:id))
        rows.flat_map do |row|
          record = Store::Records.new.of(row, seats: [], roll: [], answers: {}, shown: {}, sat: {}, teams: [])
          record.openings.filter_map do |slide_id, openings|
            count = counts[[row.id, slide_id, openings.last.attempt]]
            slide = record.lesson.slide(slide_id)
            next if count.nil? || slide.nil? || (count.given.empty? && record.passed_over?(slide_id))

            Core::Analysis::BringBack::Asked.of(record, slide, **count.to_h, at: row.ended_at.to_f)
          end
        end
      end

      # Of several attempts, those that count; practice students left out.
      def asked_alone(row)
        seats = Store::Seats.new.of(row.id).reject(&:practice)
        results = Core::Analysis::Results.new(Store::Records.new.of(row, seats: seats, roll: []))
        results.questions.select(&:facility).map do |question|
          Core::Analysis::BringBack::Asked.new(slide: question.slide, share: question.facility, marks: question.reached,
                                               at: row.ended_at.to_f)
        end
      end

      def into(account_id, lesson_id, copies, way)
        ChangeLesson.new.call(account_id, lesson_id) do |lesson|
          lesson.adding(copies, after: nil).map { |longer| in_front(longer, copies, way) }
        end&.map(&:id)
      end

      def fresh(account_id, copies, way, title)
        lesson = Core::Lesson.new(title: title, slides: copies)
        Core::Reading.ok(CreateLesson.new.call(account_id, in_front(lesson, copies, way)))
      end

      def in_front(lesson, copies, way)
        ids = copies.map(&:id)
        moved = lesson.moving(ids, 0)
        way == "quiz" ? moved.sectioned(ids, "opener#{ids.first}", "quiz") : moved
      end
    end
  end
end
