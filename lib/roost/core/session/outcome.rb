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
      #           was typed that can't be read as an answer; it earns nothing); :late (it came after answering
      #           had ended, or after it was told what is right, and earns nothing until the teacher lets it count)
      # mark::    Rational 0 to 1, nil when nothing is marked
      # points::  Integer, nil unless the question is played for points
      # seconds:: time used, nil without an answer
      Outcome = Struct.new(:status, :mark, :points, :seconds, :answer, :unfinished, keyword_init: true) do
        # What is said of each to whoever answered.
        self::IN_WORDS = { right: "✓ Right", part: "◐ Partly right", wrong: "✗ Not this time", blank: "– No answer",
                           set_aside: "This question doesn't count", not_reached: "· Not reached",
                           given: "Handed in: nothing marks it", unread: "Kept as you typed it",
                           late: "– Came late: your teacher has it, and it doesn't count yet" }.freeze

        # @param slide [Slide] with a prompt
        # @param answer [Answer, nil]
        # @param shown_at [Float, nil] when the seat's device was sent the open prompt
        # @param opening [Opening, nil]
        # @param play [Play] how it is played
        # @param set_aside [Boolean] whether the question was set aside
        # @param worth [Worth] of the answer, where that is known already
        def self.of(slide:, answer:, shown_at:, opening:, play:, set_aside: false, worth: nil)
          prompt = slide.prompt
          worth ||= Worth.of(prompt, answer.value) if answer&.readable?
          answer = nil if worth&.blank
          if set_aside then left_out(answer, shown_at, opening)
          elsif answer && !answer.readable? then unread(prompt, answer, opening, play.game)
          elsif answer then marked(slide, answer, worth, shown_at, opening, play)
          else without_answer(prompt, shown_at, play.game)
          end
        end

        def self.marked(slide, answer, worth, shown_at, opening, play)
          uncounted = worth.mark && answer.late && play.uncounted?(answer)
          mark = uncounted ? 0r : worth.mark
          timing = play.timing(slide)
          seconds = shown_at && [answer.received_at - shown_at, 0].max
          seconds = [seconds, timing.longest].min if seconds && timing
          new(status: uncounted ? late_status(play) : worth.status, mark: mark, seconds: seconds, answer: answer,
              unfinished: answer.unfinished?(opening),
              points: (points(slide.prompt, mark, seconds, timing, play) if play.game)).freeze
        end

        def self.late_status(play) = play.rules.late_earns? ? :wrong : :late
        private_class_method :late_status
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

        # Of a device that was never sent the question it is not known how long it took: then all of the time.
        def self.points(prompt, mark, seconds, timing, play)
          used = seconds && (seconds / play.factor)
          Game::Points.for(points: prompt.points, mark: mark, seconds: used || timing&.total, time_limit: timing&.thinking,
                           free: timing&.reading || 0, speed: play.speed)
        end
        private_class_method :points
      end
    end
  end
end
