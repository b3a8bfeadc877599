# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Questions a class should meet again, and a ready opener made of them.
    class BringBack
      MOST = 8
      # Sessions of the class that are looked at, the latest.
      SESSIONS = 24
      NONE = "Choose at least one question."
      WAYS = { "paced" => "You go through them together", "quiz" => "A quiz, each at their own speed" }.freeze

      # slide:: Core::Slide as it was asked the last time; share:: the mean mark then; days:: since then; need:: 0 to 1
      Needed = Struct.new(:slide, :share, :days, :need, :steps, keyword_init: true)

      # @return [Array<Needed>] at most MOST, the greatest need first
      def needs(account_id, class_id)
        ended = Store::PastSessions.new.ended_of_class(account_id, class_id, SESSIONS)
        WriteEvidence.new.call(ended.keys)
        asked = Store::Evidence.new.by_question(ended.keys).map { |question| asked(question, ended) }
        Core::Analysis::BringBack.of(asked, now: Store::Sessions.new.now).first(MOST).map { |need| needed(need) }
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

      def asked(question, ended)
        Core::Analysis::BringBack::Asked.new(origin: question.origin, session_id: question.session_id,
                                             slide_id: question.slide_id, share: question.share, marks: question.many,
                                             at: ended.fetch(question.session_id)).freeze
      end

      def needed(need)
        slide = Store::Sessions.new.lesson(need.last.session_id).slide(need.last.slide_id)
        Needed.new(slide: slide, share: need.last.share, days: need.days, need: need.need, steps: need.steps).freeze
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
