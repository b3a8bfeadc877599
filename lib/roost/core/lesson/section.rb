# frozen_string_literal: true

module Roost
  module Core
    # Consecutive slides that are run in one way: "paced" (the teacher moves), "quiz"
    # (students move through it at their own speed) or "game" (paced, timed, with points
    # and standings). Which slides belong to it is a list of their ids; the slides know
    # nothing of it, so that turning a run of slides into a quiz and back changes none.
    # `rules` are those of Session::Sitting::RULES that were chosen for a quiz; they are kept while it is
    # run in another way.
    Section = Struct.new(:id, :way, :title, :slide_ids, :rules, keyword_init: true) do
      self::WAYS = { "paced" => "Paced", "quiz" => "Quiz", "game" => "Game round" }.freeze
      self::PURPOSES = { "paced" => "You move everybody through it", "quiz" => "Students move through it at their own speed",
                         "game" => "You move; timed, with points and standings" }.freeze
      self::TITLE_LIMIT = 80
      self::FEEDBACK = { "end" => "When the quiz is over for all", "right" => "At once: right or wrong",
                         "explained" => "At once, with the explanation", "none" => "No feedback" }.freeze
      self::LONGEST = 240 # minutes

      def self.from_document(document)
        new(id: document.fetch("id"), way: document.fetch("way"), title: document.fetch("title", ""),
            slide_ids: document.fetch("slide_ids").freeze, rules: document.fetch("rules", {}).freeze).freeze
      end

      # @return [Reading] of a title for a section; may be empty
      def self.read_title(raw) = Text.read(raw, limit: self::TITLE_LIMIT, what: "The title of a section", lines: false)

      # @param form [Hash{String=>String}] "limit" in minutes, "draw", "feedback", and "1" for what is ticked
      # @return [Reading] of rules for a quiz (Session::Sitting::RULES)
      def self.read_rules(form)
        limit, draw = form.values_at("limit", "draw").map { |text| text.to_s.strip }
        return Reading.refused("The time of a quiz is 1 to #{self::LONGEST} minutes, or empty for no limit.") \
          unless limit.empty? || (1..self::LONGEST).cover?(Integer(limit, 10, exception: false))
        return Reading.refused("How many questions each gets is a number, or empty for all of them.") \
          unless draw.empty? || (1..Lesson::SLIDE_LIMIT).cover?(Integer(draw, 10, exception: false))

        feedback = Session::Sitting::FEEDBACK.include?(form["feedback"]) ? form["feedback"] : "end"
        ticked = %w[must_answer going_back shuffled].to_h { |name| [name, form[name] == "1"] }
        Reading.ok({ **ticked, "feedback" => feedback, "limit" => limit.empty? ? nil : limit.to_i * 60,
                               "draw" => draw.empty? ? nil : draw.to_i }.freeze)
      end

      # @param form [Hash{String=>String}] "style", "speed" ("" for as the session says), "goal" (percent), "answering" and "talk"
      # @param usual [Hash] as of #round_rules: what stands where nothing is said, or nothing that is understood
      # @return [Hash] rules of a game round, as of #round_rules
      def self.read_round(form, usual)
        goal, talk = form.values_at("goal", "talk").map { |text| Integer(text.to_s, 10, exception: false) }
        chosen = { "style" => (form["style"] if Game::Style.known?(form["style"])),
                   "answering" => (form["answering"] if Session::Play::WAYS.key?(form["answering"])),
                   "goal" => goal && (goal.clamp(5, 100) / 100.0), "talk" => talk && Session::Play.talk(talk) }
        speed = Session::Options::SPEED_SHARES.key?(form["speed"]) ? form["speed"].to_f : nil
        { **usual, **chosen.compact, **(form.key?("speed") ? { "speed" => speed } : {}) }.freeze
      end

      def with(**changes) = self.class.new(**to_h, **changes).freeze

      def name = title.empty? ? label : title

      def label = self.class::WAYS.fetch(way)

      def game? = way == "game"

      def quiz? = way == "quiz"

      # @return [Hash] rules of a quiz, all of Session::Sitting::RULES
      def quiz_rules = Session::Sitting::RULES.merge(rules.to_h.slice(*Session::Sitting::RULES.keys))

      # The rules of a game round: what is not said is left to the session.
      # @return [Hash] "style", "speed" (nil: as the session says), "goal", "answering" and "talk"
      def round_rules
        { "style" => Game::Style::USUAL, "speed" => nil, "goal" => Game::Style::USUAL_GOAL.to_f, "answering" => "alone",
          "talk" => Session::Play::USUAL_TALK }.merge(rules.to_h.slice("style", "speed", "goal", "answering", "talk"))
      end

      # By which the end of a game round is known among the stops of a lesson.
      def end_id = "#{id}-end"

      # What stands for the end of a game round.
      # @return [Slide]
      def last_card = Slide.new(id: end_id, heading: name)

      # What stands for a quiz or a game round as a whole, before its slides.
      # @param slides [Array<Slide>] of it, as the class gets them
      # @return [Slide]
      def card(slides)
        asked = slides.count(&:prompt)
        many = { 0 => "#{slides.length} slides", 1 => "1 question" }.fetch(asked, "#{asked} questions")
        Slide.new(id: id, heading: name, text: quiz? ? "#{many}, each at your own speed." : "")
      end

      # Whether its questions want a key: nobody can be marked without one.
      def marked? = way != "paced"

      def to_document
        document = { "id" => id, "way" => way, "title" => title, "slide_ids" => slide_ids }
        rules.to_h.empty? ? document : document.merge("rules" => rules)
      end
    end
  end
end
