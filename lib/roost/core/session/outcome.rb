# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How one seat did on one slide: a function of the prompt, the answer and the
      # times, so that a corrected key marks everything anew (rules.md).
      #
      # status::  :right, :part, :wrong; :given (nothing marks it); :blank (shown, no
      #           answer); :not_reached (never shown); the last two are never mixed up;
      #           :set_aside (the question was set aside and counts for nobody); :unread (something
      #           was typed that can't be read as an answer; it earns nothing)
      # mark::    Rational 0 to 1, nil when nothing is marked
      # points::  Integer, nil unless the question is played for points
      # seconds:: time used, nil without an answer
      Outcome = Struct.new(:status, :mark, :points, :seconds, :answer, :unfinished, keyword_init: true) do
        # What is said of each to whoever answered.
        self::IN_WORDS = { right: "✓ Right", part: "◐ Partly right", wrong: "✗ Not this time", blank: "– No answer",
                           set_aside: "This question doesn't count", not_reached: "· Not reached",
                           given: "Handed in: nothing marks it", unread: "Kept as you typed it" }.freeze

        # @param slide [Slide] with a prompt
        # @param answer [Answer, nil]
        # @param shown_at [Float, nil] when the seat's device was sent the open prompt
        # @param opening [Opening, nil]
        # @param game [Boolean] whether the question is played for points
        # @param speed [Rational] the session's speed share
        # @param set_aside [Boolean] whether the question was set aside
        def self.of(slide:, answer:, shown_at:, opening:, game:, speed:, set_aside: false)
          prompt = slide.prompt
          answer = nil if answer&.readable? && prompt.blank_answer?(answer.value)
          if set_aside then left_out(answer, shown_at, opening)
          elsif answer && !answer.readable? then unread(prompt, answer, opening, game)
          elsif answer then marked(slide, answer, shown_at, opening, game, speed)
          else without_answer(prompt, shown_at, game)
          end
        end

        def self.marked(slide, answer, shown_at, opening, game, speed)
          prompt = slide.prompt
          mark = if prompt.keyed?
                   answer.late && game ? 0r : prompt.mark(answer.value)
                 end
          seconds = shown_at && [answer.received_at - shown_at, 0].max
          seconds = [seconds, prompt.time_limit].min if seconds && prompt.time_limit
          new(status: status(mark), mark: mark, seconds: seconds, answer: answer, unfinished: answer.unfinished?(opening),
              points: (points(slide, mark, seconds, speed) if game)).freeze
        end
        private_class_method :marked

        def self.unread(prompt, answer, opening, game)
          new(status: :unread, answer: answer, unfinished: !opening&.open?, mark: (0r if prompt.keyed?),
              points: (0 if game)).freeze
        end
        private_class_method :unread

        # The answer stays to be looked at.
        def self.left_out(answer, shown_at, opening)
          reached = answer || shown_at
          new(status: reached ? :set_aside : :not_reached, answer: answer,
              unfinished: answer&.unfinished?(opening) || false).freeze
        end
        private_class_method :left_out

        def self.without_answer(prompt, shown_at, game)
          reached = !shown_at.nil?
          new(status: reached ? :blank : :not_reached, mark: (0r if reached && prompt.keyed?),
              points: (0 if reached && game), unfinished: false).freeze
        end
        private_class_method :without_answer

        # How a mark is called.
        # @param mark [Rational, nil]
        # @return [Symbol] :given, :wrong, :part or :right
        def self.status(mark)
          return :given if mark.nil?
          return :wrong if mark.zero?

          mark == 1 ? :right : :part
        end

        def self.points(slide, mark, seconds, speed)
          prompt = slide.prompt
          Game::Points.for(points: prompt.points, mark: mark, seconds: seconds || prompt.time_limit,
                           time_limit: prompt.time_limit, words: slide.words, speed: speed)
        end
        private_class_method :points
      end
    end
  end
end
